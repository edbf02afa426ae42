import { Checkbox } from "radix-ui";
import { Check } from "lucide-react";

/** A tick box; the caller puts a label around it. */
export function TickBox({ checked, onChange }: { checked: boolean; onChange: (checked: boolean) => void }) {
  return (
    <Checkbox.Root
      checked={checked}
      onCheckedChange={(value) => onChange(value === true)}
      className="flex size-4 shrink-0 items-center justify-center rounded-sm border border-soft bg-raised data-[state=checked]:border-accent data-[state=checked]:bg-accent"
    >
      <Checkbox.Indicator>
        <Check className="size-3 text-accent-ink" aria-hidden />
      </Checkbox.Indicator>
    </Checkbox.Root>
  );
}
