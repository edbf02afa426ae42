import { ChevronLeft, Film, Folder } from "lucide-react";
import { type ReactNode, useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { formatBytes } from "~/core/numbers/bytes";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.folderBrowser;

/** A film file on this machine. */
export interface FilmOnDisk {
  name: string;
  path: string;
  bytes: number;
}

interface FolderView {
  here: { name: string; path: string } | null;
  up: string | null;
  folders: { name: string; path: string }[];
  films: FilmOnDisk[];
}

interface FolderBrowserProps {
  /** Commands on a film, and their results. */
  film: (film: FilmOnDisk, folder: string | null) => ReactNode;
  /** Commands on all films of a folder. */
  together?: (films: readonly FilmOnDisk[], folder: string) => ReactNode;
}

const addressOf = (path: string | null) =>
  path === null ? "/media-folders" : `/media-folders?${new URLSearchParams({ path })}`;

/** Browses the folders that the operator has opened, and the films in them. */
export function FolderBrowser({ film, together }: FolderBrowserProps) {
  const [path, setPath] = useState<string | null>(null);
  const { data, load } = useFetcher<FolderView>();
  useEffect(() => void load(addressOf(path)), [path, load]);
  if (!data) return <p className="py-6 text-center text-sm text-soft">{t.readingFolders}</p>;
  const { here, up, folders, films } = data;
  return (
    <div className="min-h-72">
      {here && (
        <button
          type="button"
          onClick={() => setPath(up)}
          className="mt-3 flex w-full items-center gap-2 rounded-md px-2 py-1.5 text-left text-sm hover:bg-well"
        >
          <ChevronLeft className="size-4" aria-hidden />
          <span className="font-semibold">{here.name}</span>
          <span className="text-xs text-soft">{t.back}</span>
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
        {films.map((each) => (
          <li key={each.path} className="px-2 py-1">
            {film(each, here?.path ?? null)}
          </li>
        ))}
      </ul>
      {films.length > 1 && here && together?.(films, here.path)}
      {folders.length + films.length === 0 && (
        <p className="py-6 text-center text-sm text-soft">{t.noFilmsInThisFolder}</p>
      )}
    </div>
  );
}

interface FilmOnDiskRowProps {
  film: FilmOnDisk;
  /** Why it cannot be added; null if it can. */
  problem: string | null;
  /** The button that adds it. */
  children: ReactNode;
}

/** A film on this machine, with the button that adds it. */
export function FilmOnDiskRow({ film: { name, bytes }, problem, children }: FilmOnDiskRowProps) {
  return (
    <>
      <div className="flex items-center gap-2 text-sm">
        <Film className="size-4 shrink-0 text-soft" aria-hidden />
        <span className="min-w-0 grow truncate">{name}</span>
        <span className="shrink-0 text-xs text-soft">{formatBytes(bytes)}</span>
        {children}
      </div>
      {problem && (
        <p role="alert" className="mt-1 text-xs text-warn">
          {problem}
        </p>
      )}
    </>
  );
}
