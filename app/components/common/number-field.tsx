import { useId, useState } from "react";
import { Hint } from "./button";

interface NumberFieldProps {
  label: string;
  unit: string;
  /** What the number is for, where the label does not say it all. */
  hint?: string;
  value: number;
  disabled?: boolean;
  /** Digits after the point that are shown. */
  digits?: number;
  onCommit: (value: number) => void;
}

/** A number that takes effect on Enter or when the field is left, not with every digit. */
export function NumberField({ label, unit, hint, value, disabled, digits = 1, onCommit }: NumberFieldProps) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const shown = Number(value.toFixed(digits));
  const number = Number(typed);
  const valid = typed === null || (typed.trim() !== "" && Number.isFinite(number));
  const commit = () => {
    if (typed !== null && valid && number !== shown) onCommit(number);
    setTyped(null);
  };
  const input = (
    <input
      id={id}
      inputMode="decimal"
      disabled={disabled}
      aria-invalid={!valid}
      value={typed ?? String(shown)}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === "Enter") {
          // In a form, it is the number that is done, and not yet the form.
          event.preventDefault();
          commit();
        }
        if (event.key === "Escape") setTyped(null);
      }}
      className="w-full rounded-md border border-line bg-raised px-2 py-1 text-sm disabled:opacity-50 aria-invalid:border-warn"
    />
  );
  return (
    <div>
      <label htmlFor={id} className="text-xs text-soft">
        {label} ({unit})
      </label>
      {hint ? <Hint text={hint}>{input}</Hint> : input}
    </div>
  );
}
