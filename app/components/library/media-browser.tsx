import { ChevronLeft, Film, Folder, HardDrive } from "lucide-react";
import { Dialog } from "radix-ui";
import { useCallback, useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import { Button } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { formatBytes } from "~/core/bytes";
import type { HouseStyle } from "~/core/edits/house-style";
import { StyleChoice } from "./style-choice";

interface FolderView {
  here: { name: string; path: string } | null;
  up: string | null;
  folders: { name: string; path: string }[];
  films: { name: string; path: string; bytes: number }[];
}

/** What became of a film that was to be added by its path. */
export type LinkAnswer = { linked: string } | { error: string };

interface MediaBrowserProps {
  styles: readonly HouseStyle[];
  /** The house style that films begin with which are added now. */
  styleId: string | null;
  onStyle: (styleId: string | null) => void;
}

/** "From this machine": films that lie in folders that the operator has opened are added without a copy. */
export function MediaBrowser({ styles, styleId, onStyle }: MediaBrowserProps) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button>
          <HardDrive className="size-4" aria-hidden />
          From this machine
        </Button>
      </Dialog.Trigger>
      <DialogPanel title="Films on this machine" width="w-[34rem]">
        <StyleChoice styles={styles} value={styleId} onChange={onStyle} />
        <Folders styleId={styleId} />
      </DialogPanel>
    </Dialog.Root>
  );
}

const addressOf = (path: string | null) =>
  path === null ? "/media-folders" : `/media-folders?${new URLSearchParams({ path })}`;

function Folders({ styleId }: Pick<MediaBrowserProps, "styleId">) {
  const [path, setPath] = useState<string | null>(null);
  // The folder whose films are all to be added.
  const [all, setAll] = useState<string | null>(null);
  const { data, load } = useFetcher<FolderView>();
  useEffect(() => void load(addressOf(path)), [path, load]);
  if (!data) return <p className="py-6 text-center text-sm text-soft">Looking into the folders…</p>;
  const { here, up, folders, films } = data;
  return (
    <div className="min-h-72">
      <p className="mt-2 text-xs text-soft">
        Films stay where they are. Only the light copy and your work are stored in Glad Pan.
      </p>
      {here && (
        <button
          type="button"
          onClick={() => setPath(up)}
          className="mt-3 flex w-full items-center gap-2 rounded-md px-2 py-1.5 text-left text-sm hover:bg-well"
        >
          <ChevronLeft className="size-4" aria-hidden />
          <span className="font-semibold">{here.name}</span>
          <span className="text-xs text-soft">back</span>
        </button>
      )}
      <ul className="mt-2 flex flex-col">
        {folders.map((folder) => (
          <li key={folder.path}>
            <button
              type="button"
              onClick={() => setPath(folder.path)}
              className="flex w-full items-center gap-2 rounded-md px-2 py-1.5 text-left text-sm hover:bg-well"
            >
              <Folder className="size-4 text-soft" aria-hidden />
              {folder.name}
            </button>
          </li>
        ))}
        {films.map((film) => (
          <FilmOnDisk key={film.path} {...film} styleId={styleId} adds={all === here?.path} />
        ))}
      </ul>
      {films.length > 1 && here && (
        <Button className="mt-3 w-full" disabled={all === here.path} onClick={() => setAll(here.path)}>
          Add all {films.length} films of this folder
        </Button>
      )}
      {folders.length + films.length === 0 && (
        <p className="py-6 text-center text-sm text-soft">There is no film in this folder.</p>
      )}
    </div>
  );
}

interface FilmOnDiskProps extends Pick<MediaBrowserProps, "styleId"> {
  name: string;
  path: string;
  bytes: number;
  /** Whether it is added with all of its folder. */
  adds: boolean;
}

function FilmOnDisk({ name, path, bytes, styleId, adds }: FilmOnDiskProps) {
  const { state, data, submit } = useFetcher<LinkAnswer>();
  const isAdded = data && "linked" in data;
  const add = useCallback(
    () => void submit({ intent: "link", path, ...(styleId ? { styleId } : {}) }, { method: "post", action: "/?index" }),
    [submit, path, styleId],
  );
  // Once, however the style changes after it.
  const hasBegun = useRef(false);
  useEffect(() => {
    if (!adds || hasBegun.current) return;
    hasBegun.current = true;
    add();
  }, [adds, add]);
  return (
    <li className="px-2 py-1">
      <div className="flex items-center gap-2 text-sm">
        <Film className="size-4 shrink-0 text-soft" aria-hidden />
        <span className="min-w-0 grow truncate">{name}</span>
        <span className="shrink-0 text-xs text-soft">{formatBytes(bytes)}</span>
        <Button aria-label={`Add ${name}`} disabled={state !== "idle" || isAdded} onClick={add}>
          {isAdded ? "Added" : state === "idle" ? "Add" : "Adding…"}
        </Button>
      </div>
      {data && "error" in data && (
        <p role="alert" className="mt-1 text-xs text-warn">
          {data.error}
        </p>
      )}
    </li>
  );
}
