import { Dialog } from "radix-ui";
import { useState } from "react";
import { Button } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.renameFilm;

interface RenameFilmProps {
  name: string;
  onRename: (name: string) => void;
  onClose: () => void;
}

export function RenameFilm({ name, onRename, onClose }: RenameFilmProps) {
  const [typed, setTyped] = useState(name);
  const next = typed.trim();
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <DialogPanel title={t.rename} width="w-[26rem]">
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (!next) return;
            if (next !== name) onRename(next);
            onClose();
          }}
        >
          <input
            aria-label={t.nameOfTheFilm}
            autoFocus
            value={typed}
            maxLength={200}
            onChange={(event) => setTyped(event.target.value)}
            className="w-full rounded-md border border-line bg-raised px-2 py-1.5 text-sm"
          />
          <p className="mt-2 text-xs text-soft">{t.renameHint}</p>
          <div className="mt-5 flex justify-end gap-2">
            <Button onClick={onClose}>{t.cancel}</Button>
            <Button type="submit" variant="accent" disabled={!next}>
              {t.rename}
            </Button>
          </div>
        </form>
      </DialogPanel>
    </Dialog.Root>
  );
}
