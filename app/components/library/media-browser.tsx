import { HardDrive } from "lucide-react";
import { Dialog } from "radix-ui";
import { useCallback, useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import { Button } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import type { Preset } from "~/core/edits/preset";
import { type FilmOnDisk, FilmOnDiskRow, FolderBrowser } from "./folder-browser";
import { PresetChoice } from "./preset-choice";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.mediaBrowser;

/** Result of adding a film by its path. */
export type LinkAnswer = { linked: string } | { error: string };

interface MediaBrowserProps {
  presets: readonly Preset[];
  /** The preset that new films begin with. */
  presetId: string | null;
  onPreset: (presetId: string | null) => void;
}

/** "From this machine": films that lie in folders that the operator has opened are added without a copy. */
export function MediaBrowser({ presets, presetId, onPreset }: MediaBrowserProps) {
  const [open, setOpen] = useState(false);
  // The folder whose films are all to be added.
  const [all, setAll] = useState<string | null>(null);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button>
          <HardDrive className="size-4" aria-hidden />
          {t.fromThisMachine}
        </Button>
      </Dialog.Trigger>
      <DialogPanel title={t.filmsOnThisMachine} width="w-[34rem]">
        <PresetChoice presets={presets} value={presetId} onChange={onPreset} />
        <p className="mt-2 text-xs text-soft">{t.linkHint}</p>
        <FolderBrowser
          film={(film, folder) => (
            <AddedFilm film={film} presetId={presetId} adds={folder !== null && all === folder} />
          )}
          together={(films, folder) => (
            <Button className="mt-3 w-full" disabled={all === folder} onClick={() => setAll(folder)}>
              {t.addAll(films.length)}
            </Button>
          )}
        />
      </DialogPanel>
    </Dialog.Root>
  );
}

interface AddedFilmProps extends Pick<MediaBrowserProps, "presetId"> {
  film: FilmOnDisk;
  /** Whether it is one of a folder that is being added. */
  adds: boolean;
}

function AddedFilm({ film, presetId, adds }: AddedFilmProps) {
  const { path, name } = film;
  const { state, data, submit } = useFetcher<LinkAnswer>();
  const isAdded = data && "linked" in data;
  const add = useCallback(
    () =>
      void submit({ intent: "link", path, ...(presetId ? { presetId } : {}) }, { method: "post", action: "/?index" }),
    [submit, path, presetId],
  );
  // Only once, however the preset changes afterwards.
  const hasBegun = useRef(false);
  useEffect(() => {
    if (!adds || hasBegun.current) return;
    hasBegun.current = true;
    add();
  }, [adds, add]);
  return (
    <FilmOnDiskRow film={film} problem={data && "error" in data ? data.error : null}>
      <Button aria-label={t.addFilm(name)} disabled={state !== "idle" || isAdded} onClick={add}>
        {isAdded ? t.added : state === "idle" ? t.add : t.adding}
      </Button>
    </FilmOnDiskRow>
  );
}
