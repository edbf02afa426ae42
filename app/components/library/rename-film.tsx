import { Dialog } from "radix-ui";
import { useState } from "react";
import { Button } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";

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
      <DialogPanel title="Rename" width="w-[26rem]">
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (!next) return;
            if (next !== name) onRename(next);
            onClose();
          }}
        >
          <input
            aria-label="Name of the film"
            autoFocus
            value={typed}
            maxLength={200}
            onChange={(event) => setTyped(event.target.value)}
            className="w-full rounded-md border border-line bg-raised px-2 py-1.5 text-sm"
          />
          <p className="mt-2 text-xs text-soft">Exports are named after it. The film's own file keeps its name.</p>
          <div className="mt-5 flex justify-end gap-2">
            <Button onClick={onClose}>Cancel</Button>
            <Button type="submit" variant="accent" disabled={!next}>
              Rename
            </Button>
          </div>
        </form>
      </DialogPanel>
    </Dialog.Root>
  );
}
