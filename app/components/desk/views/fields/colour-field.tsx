import { useId } from "react";

interface ColourFieldProps {
  label: string;
  colour: string;
  onChange: (colour: string) => void;
}

/** A colour with its name. */
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
        // What is picked is taken when the picker is closed, and not with every colour that is passed over.
        key={colour}
        defaultValue={colour}
        onBlur={(event) => event.target.value !== colour && onChange(event.target.value)}
        className="h-7 w-12 cursor-pointer rounded-md border border-line bg-raised"
      />
    </div>
  );
}
