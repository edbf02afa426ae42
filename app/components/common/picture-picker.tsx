import { ImagePlus } from "lucide-react";
import { useRef, useState } from "react";
import { toast } from "sonner";
import type { Picture } from "~/core/composition/picture";
import { Button, Hint } from "./button";

const NOT_SENT = "The picture could not be sent. Try again.";

async function send(file: File): Promise<{ picture: Picture | null; error: string | null }> {
  const body = new FormData();
  body.set("picture", file);
  try {
    const response = await fetch("/pictures", { method: "POST", body });
    const answer = (await response.json()) as { picture?: Picture; error?: string } | string;
    if (typeof answer === "string") return { picture: null, error: answer };
    return { picture: answer.picture ?? null, error: answer.error ?? (response.ok ? null : NOT_SENT) };
  } catch {
    return { picture: null, error: NOT_SENT };
  }
}

/** A button that brings a picture into the library and gives it. */
export function PicturePicker({ text, onPicked }: { text: string; onPicked: (picture: Picture) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [isSending, setSending] = useState(false);
  const pick = async (file: File | undefined) => {
    if (!file) return;
    setSending(true);
    const { picture, error } = await send(file);
    setSending(false);
    if (picture) onPicked(picture);
    else toast.error(error ?? NOT_SENT);
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        accept="image/png,image/jpeg,image/webp,image/svg+xml"
        aria-label={`${text}: file`}
        hidden
        onChange={({ target }) => {
          void pick(target.files?.[0]);
          // The same file can be picked again.
          target.value = "";
        }}
      />
      <Hint text="A PNG, JPEG, WebP or SVG file">
        <Button disabled={isSending} onClick={() => input.current?.click()}>
          <ImagePlus className="size-3.5" aria-hidden /> {isSending ? "Sending…" : text}
        </Button>
      </Hint>
    </>
  );
}
