import { FileButton } from "./file-button";
import type { LucideIcon } from "lucide-react";
import { useState } from "react";
import { toast } from "sonner";
import type { Kept } from "./send-own-file";
import { commonTexts } from "~/texts/common";

const t = commonTexts.ownFilePicker;

/** Adds something to the library: whether that is under way, and why it failed. */
export function useBringing<T>(onPicked: (file: T) => void) {
  const [isBringing, setBringing] = useState(false);
  const bring = async (sent: Promise<Kept<T>>) => {
    setBringing(true);
    const { file, error } = await sent;
    setBringing(false);
    if (file) onPicked(file);
    else toast.error(error);
  };
  return { isBringing, bring };
}

interface OwnFilePickerProps<T> {
  text: string;
  hint: string;
  Icon: LucideIcon;
  /** File types that the browser's picker offers. */
  accept: string;
  /** Whether several can be picked at once. */
  multiple?: boolean;
  send: (files: File[]) => Promise<Kept<T>>;
  onPicked: (file: T) => void;
}

/** A button that adds a file to the library and hands over the stored file. */
export function OwnFilePicker<T>({ text, hint, Icon, accept, multiple, send, onPicked }: OwnFilePickerProps<T>) {
  const { isBringing, bring } = useBringing(onPicked);
  return (
    <FileButton
      label={t.file(text)}
      {...{ accept, multiple, hint }}
      disabled={isBringing}
      onFiles={(files) => void bring(send(files))}
    >
      <Icon className="size-3.5" aria-hidden /> {isBringing ? t.sending : text}
    </FileButton>
  );
}
