import { Database } from "lucide-react";
import { Dialog } from "radix-ui";
import { Button } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { formatBytes } from "~/core/numbers/bytes";
import { useFilmActions } from "./film-actions";
import { type FilmView, type SpaceView, type Spaces, totalSpace } from "./library-view";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.storageDialog;

interface StorageDialogProps {
  films: readonly FilmView[];
  spaces: Spaces;
  /** Free bytes on the library's disk; null while unknown. */
  free: number | null;
}

/** Disk usage, and a way to clear what can be made again. */
export function StorageDialog({ films, spaces, free }: StorageDialogProps) {
  const rows = films
    .flatMap((film) => (spaces[film.id] ? [{ film, space: spaces[film.id]! }] : []))
    .sort((a, b) => totalSpace(b.space) - totalSpace(a.space));
  const sum = (bytesOf: (space: SpaceView) => number) => rows.reduce((total, { space }) => total + bytesOf(space), 0);
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <Button>
          <Database className="size-4" aria-hidden />
          {t.storage}
        </Button>
      </Dialog.Trigger>
      <DialogPanel title={t.storage} width="w-[44rem]">
        <p className="text-xs text-soft">{t.clearHint}</p>
        <table className="mt-3 w-full border-collapse text-sm">
          <thead className="text-xs text-soft">
            <tr className="border-b border-line">
              {[t.film, t.file, t.proxy, t.renders].map((heading, i) => (
                <th key={heading} className={i === 0 ? "w-full py-1 text-left" : "px-3 py-1 text-right"}>
                  {heading}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ film, space }) => (
              <StorageLine key={film.id} film={film} space={space} />
            ))}
          </tbody>
          <tfoot>
            <tr className="whitespace-nowrap">
              <td className="py-2 font-medium">
                {t.all}
                {free !== null && <span className="font-normal text-soft"> {t.free(formatBytes(free))}</span>}
              </td>
              {[sum(({ source }) => source), sum(({ proxy }) => proxy), sum(({ renders }) => renders)].map(
                (bytes, i) => (
                  <td key={i} className="px-3 py-2 text-right font-medium">
                    {formatBytes(bytes)}
                  </td>
                ),
              )}
            </tr>
          </tfoot>
        </table>
      </DialogPanel>
    </Dialog.Root>
  );
}

function StorageLine({ film, space }: { film: FilmView; space: SpaceView }) {
  const { act, isBusy } = useFilmActions(film);
  const clearable = [
    { what: "proxy", bytes: space.proxy, intent: "clear-copy" },
    { what: "renders", bytes: space.renders, intent: "clear-renders" },
  ] as const;
  return (
    <tr className="border-b border-line whitespace-nowrap">
      <td className="max-w-0 truncate py-1.5">
        {film.name}
        {film.deletedAt !== null && <span className="text-xs text-soft"> {t.deleted}</span>}
      </td>
      <td className="px-3 py-1.5 text-right">
        {film.isLinked ? <span className="text-soft">{t.elsewhere}</span> : formatBytes(space.source)}
      </td>
      {clearable.map(({ what, bytes, intent }) => (
        <td key={what} className="px-3 py-1.5 text-right">
          {bytes === 0 ? (
            <span className="text-soft">{t.none}</span>
          ) : (
            <span className="inline-flex items-center gap-2">
              {formatBytes(bytes)}
              <Button
                className="!px-2 !py-0.5 !text-xs"
                aria-label={t.clearOf(what, film.name)}
                disabled={isBusy}
                onClick={() => act({ intent })}
              >
                {t.clear}
              </Button>
            </span>
          )}
        </td>
      ))}
    </tr>
  );
}
