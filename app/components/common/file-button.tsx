import { type ComponentProps, useRef } from "react";
import { Button, Hint } from "./button";

interface FileButtonProps extends Omit<ComponentProps<typeof Button>, "onClick"> {
  /** Label for screen readers. */
  label: string;
  accept?: string;
  multiple?: boolean;
  hint?: string;
  /** One or several; never none. */
  onFiles: (files: File[]) => void;
}

/** A button that opens the file picker. */
export function FileButton({ label, accept, multiple, hint, onFiles, ...button }: FileButtonProps) {
  const input = useRef<HTMLInputElement>(null);
  const opener = <Button {...button} onClick={() => input.current?.click()} />;
  return (
    <>
      <input
        ref={input}
        type="file"
        {...{ accept, multiple }}
        aria-label={label}
        hidden
        onChange={({ target }) => {
          const files = [...(target.files ?? [])];
          if (files.length > 0) onFiles(files);
          // So that the same file can be picked again.
          target.value = "";
        }}
      />
      {hint ? <Hint text={hint}>{opener}</Hint> : opener}
    </>
  );
}
