import { clsx } from "clsx";
import { ChevronRight } from "lucide-react";
import { Collapsible } from "radix-ui";
import type { ReactNode } from "react";

interface FoldProps {
  title: string;
  /** Whether it holds a remark, and is not a section of a panel. */
  quiet?: boolean;
  children: ReactNode;
}

/** Content that is seldom needed, folded behind its title. */
export function Fold({ title, quiet = false, children }: FoldProps) {
  return (
    <Collapsible.Root className={quiet ? "" : "border-t border-line pt-2"}>
      <Collapsible.Trigger
        className={clsx(
          "group flex items-center gap-1.5 text-left",
          quiet ? "text-xs text-soft hover:text-ink" : "w-full py-1 text-sm font-medium",
        )}
      >
        <ChevronRight
          className="size-4 shrink-0 text-soft transition-transform group-data-[state=open]:rotate-90"
          aria-hidden
        />
        {title}
      </Collapsible.Trigger>
      <Collapsible.Content className="flex flex-col gap-3 pt-2">{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
