import { ImagePlus, Type } from "lucide-react";
import { useRef, useState } from "react";
import { toast } from "sonner";
import type { OwnFont } from "~/core/composition/layers/own-font";
import type { Picture } from "~/core/composition/picture";
import { Button, Hint } from "./button";

interface Kinds {
  picture: Picture;
  font: OwnFont;
}

const KINDS = {
  picture: {
    accept: "image/png,image/jpeg,image/webp,image/svg+xml",
    hint: "A PNG, JPEG, WebP or SVG file",
    Icon: ImagePlus,
  },
  font: { accept: ".ttf,.otf,.woff2", hint: "A TTF, OTF or WOFF2 file", Icon: Type },
};
const NOT_SENT = "The file could not be sent. Try again.";

async function send<Kind extends keyof Kinds>(kind: Kind, file: File) {
  const body = new FormData();
  body.set(kind, file);
  try {
    const response = await fetch("/own-files", { method: "POST", body });
    const answer = (await response.json()) as { kept: Kinds[Kind] | null; error: string | null } | string;
    return typeof answer === "string" ? { kept: null, error: answer } : answer;
  } catch {
    return { kept: null, error: NOT_SENT };
  }
}

interface OwnFilePickerProps<Kind extends keyof Kinds> {
  kind: Kind;
  text: string;
  onPicked: (kept: Kinds[Kind]) => void;
}

/** A button that brings a picture or a font into the library and gives it. */
export function OwnFilePicker<Kind extends keyof Kinds>({ kind, text, onPicked }: OwnFilePickerProps<Kind>) {
  const input = useRef<HTMLInputElement>(null);
  const [isSending, setSending] = useState(false);
  const { accept, hint, Icon } = KINDS[kind];
  const pick = async (file: File | undefined) => {
    if (!file) return;
    setSending(true);
    const { kept, error } = await send(kind, file);
    setSending(false);
    if (kept) onPicked(kept);
    else toast.error(error ?? NOT_SENT);
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={`${text}: file`}
        hidden
        onChange={({ target }) => {
          void pick(target.files?.[0]);
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
