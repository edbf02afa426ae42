import { clsx } from "clsx";
import { ToggleGroup } from "radix-ui";
import { Hint } from "./button";

interface ChoiceBarProps<Value extends string> {
  /** Label for screen readers. */
  label: string;
  choices: readonly { value: Value; name: string; hint: string }[];
  /** Null where the selected items differ. */
  value: Value | null;
  onChange: (value: Value) => void;
  /** Layout classes, such as the number of columns. */
  className: string;
}

/** One choice of a few, side by side; one is always selected. */
export function ChoiceBar<Value extends string>({ label, choices, value, onChange, className }: ChoiceBarProps<Value>) {
  return (
    <ToggleGroup.Root
      type="single"
      value={value ?? ""}
      aria-label={label}
      // A toggle group sends an empty value when the pressed one is pressed again.
      onValueChange={(value) => value && onChange(value as Value)}
      className={clsx("grid overflow-hidden rounded-md border border-line", className)}
    >
      {choices.map((choice) => (
        <Hint key={choice.value} text={choice.hint}>
          <ToggleGroup.Item
            value={choice.value}
            className={clsx(
              "border-l border-line bg-raised py-1.5 text-sm first:border-l-0 hover:bg-well",
              "aria-checked:bg-accent aria-checked:font-semibold aria-checked:text-accent-ink",
            )}
          >
            {choice.name}
          </ToggleGroup.Item>
        </Hint>
      ))}
    </ToggleGroup.Root>
  );
}
