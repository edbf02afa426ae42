import { Check } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { ComponentProps, ReactNode } from "react";

interface MenuProps {
  /** The button that opens it. */
  trigger: ReactNode;
  align: "start" | "end";
  onOpen?: () => void;
  children: ReactNode;
}

/** Several actions behind one button. */
export function Menu({ trigger, align, onOpen, children }: MenuProps) {
  return (
    <DropdownMenu.Root onOpenChange={(isOpen) => isOpen && onOpen?.()}>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align={align}
          className="z-40 min-w-48 rounded-md border border-line bg-raised p-1 shadow-lg"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** One action: an icon and its name. */
export function MenuItem(props: ComponentProps<typeof DropdownMenu.Item>) {
  return (
    <DropdownMenu.Item
      {...props}
      className="flex cursor-default items-center gap-3 rounded-sm px-2 py-1.5 text-sm outline-none data-disabled:opacity-45 data-highlighted:bg-well"
    />
  );
}

/** Heading of a group of actions. */
export const MenuHeading = ({ children }: { children: ReactNode }) => (
  <DropdownMenu.Label className="px-2 pt-2 pb-0.5 text-xs text-soft">{children}</DropdownMenu.Label>
);

interface MenuTickProps {
  isOn: boolean;
  onToggle: (isOn: boolean) => void;
  children: ReactNode;
}

/** Something that is on or off; the menu stays open. */
export function MenuTick({ isOn, onToggle, children }: MenuTickProps) {
  return (
    <DropdownMenu.CheckboxItem
      checked={isOn}
      onCheckedChange={onToggle}
      onSelect={(event) => event.preventDefault()}
      className="flex cursor-default items-center gap-3 rounded-sm py-1.5 pr-2 pl-7 text-sm outline-none data-highlighted:bg-well"
    >
      <DropdownMenu.ItemIndicator className="absolute left-3">
        <Check className="size-3.5" aria-hidden />
      </DropdownMenu.ItemIndicator>
      {children}
    </DropdownMenu.CheckboxItem>
  );
}
