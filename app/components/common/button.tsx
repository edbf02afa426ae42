import { clsx } from "clsx";
import { Tooltip } from "radix-ui";
import type { ComponentProps, ReactNode } from "react";

/** A hint that shows what a control does and its shortcut. */
export function Hint({ text, shortcut, children }: { text: string; shortcut?: string; children: ReactNode }) {
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          sideOffset={6}
          className="z-50 max-w-64 rounded-md border border-line bg-raised px-2.5 py-1.5 text-xs text-ink shadow-lg"
        >
          {text}
          {shortcut && <kbd className="ml-2 rounded-sm bg-well px-1.5 py-0.5 font-mono text-xs">{shortcut}</kbd>}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}

type ButtonProps = ComponentProps<"button"> & { variant?: "plain" | "accent" | "quiet" };

export function Button({ variant = "plain", className, ...props }: ButtonProps) {
  return (
    <button
      type="button"
      className={clsx(
        "inline-flex items-center justify-center gap-1.5 rounded-md px-3 py-1.5 text-sm font-medium",
        "disabled:cursor-not-allowed disabled:opacity-45",
        variant === "plain" && "border border-line bg-raised enabled:hover:border-soft",
        variant === "accent" && "bg-accent text-accent-ink enabled:hover:brightness-110",
        variant === "quiet" && "text-soft enabled:hover:bg-well enabled:hover:text-ink",
        className,
      )}
      {...props}
    />
  );
}

/** A button that is only an icon, with its name and shortcut as a hint. */
export function IconButton({ label, shortcut, ...props }: ButtonProps & { label: string; shortcut?: string }) {
  return (
    <Hint text={label} shortcut={shortcut}>
      <Button aria-label={label} variant="quiet" {...props} className={clsx("h-8 w-8 !px-0", props.className)} />
    </Hint>
  );
}
