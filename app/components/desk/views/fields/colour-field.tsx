import { useId } from "react";

interface ColourFieldProps {
  label: string;
  colour: string;
  onChange: (colour: string) => void;
}

/** A labelled colour picker. */
export function ColourField({ label, colour, onChange }: ColourFieldProps) {
  const id = useId();
  return (
    <div className="flex items-center justify-between gap-2">
      <label htmlFor={id} className="text-xs text-soft">
        {label}
      </label>
      <input
        id={id}
        type="color"
        // The colour is committed when the picker closes, not with every colour on the way.
        key={colour}
        defaultValue={colour}
        onBlur={(event) => event.target.value !== colour && onChange(event.target.value)}
        className="h-7 w-12 cursor-pointer rounded-md border border-line bg-raised"
      />
    </div>
  );
}
