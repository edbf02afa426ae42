import type { LucideIcon } from "lucide-react";
import { useRef, useState } from "react";
import { toast } from "sonner";
import { Button, Hint } from "./button";
import type { Kept } from "./send-own-file";

interface OwnFilePickerProps<T> {
  text: string;
  hint: string;
  Icon: LucideIcon;
  /** What the browser offers. */
  accept: string;
  /** Whether several can be picked at once. */
  multiple?: boolean;
  send: (files: File[]) => Promise<Kept<T>>;
  onPicked: (kept: T) => void;
}

/** A button that brings a file into the library and gives what it is there. */
export function OwnFilePicker<T>({ text, hint, Icon, accept, multiple, send, onPicked }: OwnFilePickerProps<T>) {
  const input = useRef<HTMLInputElement>(null);
  const [isSending, setSending] = useState(false);
  const pick = async (files: File[]) => {
    if (files.length === 0) return;
    setSending(true);
    const { kept, error } = await send(files);
    setSending(false);
    if (kept) onPicked(kept);
    else toast.error(error);
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        multiple={multiple}
        aria-label={`${text}: file`}
        hidden
        onChange={({ target }) => {
          void pick([...(target.files ?? [])]);
          // The same file can be picked again.
          target.value = "";
        }}
      />
      <Hint text={hint}>
        <Button disabled={isSending} onClick={() => input.current?.click()}>
          <Icon className="size-3.5" aria-hidden /> {isSending ? "Sending…" : text}
        </Button>
      </Hint>
    </>
  );
}
