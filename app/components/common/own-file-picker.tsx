import type { LucideIcon } from "lucide-react";
import { useRef, useState } from "react";
import { toast } from "sonner";
import { Button, Hint } from "./button";
import type { Kept } from "./send-own-file";
import { commonTexts } from "~/texts/common";

const t = commonTexts.ownFilePicker;

/** Lets something be brought into the library: says whether that is going on, and why it cannot be. */
export function useBringing<T>(onPicked: (kept: T) => void) {
  const [isBringing, setBringing] = useState(false);
  const bring = async (sent: Promise<Kept<T>>) => {
    setBringing(true);
    const { kept, error } = await sent;
    setBringing(false);
    if (kept) onPicked(kept);
    else toast.error(error);
  };
  return { isBringing, bring };
}

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
  const { isBringing, bring } = useBringing(onPicked);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        multiple={multiple}
        aria-label={t.file(text)}
        hidden
        onChange={({ target }) => {
          const files = [...(target.files ?? [])];
          if (files.length > 0) void bring(send(files));
          // The same file can be picked again.
          target.value = "";
        }}
      />
      <Hint text={hint}>
        <Button disabled={isBringing} onClick={() => input.current?.click()}>
          <Icon className="size-3.5" aria-hidden /> {isBringing ? t.sending : text}
        </Button>
      </Hint>
    </>
  );
}
