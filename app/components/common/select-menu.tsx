import { clsx } from "clsx";
import { ChevronDown } from "lucide-react";
import { Select } from "radix-ui";

export interface SelectItem {
  value: string;
  text: string;
  /** A second line with more detail. */
  hint?: string;
}

interface SelectMenuProps {
  label: string;
  items: readonly SelectItem[];
  /** Value of the selected item; empty where it is none of them. */
  value?: string;
  /** Shown while no item is selected. */
  placeholder: string;
  onChange: (value: string) => void;
  small?: boolean;
}

/** A menu of which one item is selected. */
export function SelectMenu({ label, items, value = "", placeholder, onChange, small }: SelectMenuProps) {
  return (
    <Select.Root value={value} onValueChange={onChange}>
      <Select.Trigger
        aria-label={label}
        className={clsx(
          "flex shrink-0 items-center gap-1.5 rounded-md border border-line bg-raised px-2 py-1 whitespace-nowrap hover:border-soft",
          small ? "text-xs font-medium" : "text-sm",
        )}
      >
        <Select.Value placeholder={placeholder} />
        <Select.Icon>
          <ChevronDown className="size-3.5 text-soft" aria-hidden />
        </Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={4}
          align="end"
          className="z-50 rounded-md border border-line bg-raised p-1 shadow-lg"
        >
          <Select.Viewport>
            {items.map((item) => (
              <Select.Item
                key={item.value}
                value={item.value}
                className="flex cursor-default flex-col rounded-sm px-2 py-1.5 text-sm outline-none data-highlighted:bg-well data-[state=checked]:bg-accent-wash"
              >
                <Select.ItemText>{item.text}</Select.ItemText>
                {item.hint && <span className="text-xs text-soft">{item.hint}</span>}
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}
