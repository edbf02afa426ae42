import { AlertDialog } from "radix-ui";
import { Button } from "~/components/common/button";
import { formatBytes } from "~/core/numbers/bytes";
import { DAYS_KEPT } from "~/core/film/days-kept";
import type { FilmIntent } from "./film-actions";
import type { FilmView, SpaceView } from "./library-view";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.deleteFilm;

interface DeleteFilmProps {
  film: FilmView;
  space: SpaceView | undefined;
  onDelete: (intent: FilmIntent) => void;
  onClose: () => void;
}

/** Deletes a film, after saying what is deleted with it now and later. */
export function DeleteFilm({ film, space, onDelete, onClose }: DeleteFilmProps) {
  const forGood = film.deletedAt !== null;
  return (
    <AlertDialog.Root open onOpenChange={(open) => !open && onClose()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-40 w-[28rem] -translate-1/2 rounded-lg border border-line bg-panel p-6 shadow-xl">
          <AlertDialog.Title className="font-display text-lg font-semibold">
            {forGood ? t.isForGood : t.isDeleted}
          </AlertDialog.Title>
          <AlertDialog.Description className="mt-1 truncate text-sm">{film.name}</AlertDialog.Description>
          <ul className="mt-3 flex flex-col gap-1.5 text-sm text-soft">
            {(forGood ? finalLosses(film, space) : losses(film, space)).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          <div className="mt-5 flex justify-end gap-2">
            <AlertDialog.Cancel asChild>
              <Button>{t.keepIt}</Button>
            </AlertDialog.Cancel>
            <AlertDialog.Action asChild>
              <Button variant="accent" onClick={() => onDelete({ intent: forGood ? "delete-for-good" : "delete" })}>
                {forGood ? t.deleteForGood : t.delete}
              </Button>
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}

const inBytes = (bytes: number | undefined) => (bytes === undefined ? "" : ` (${formatBytes(bytes)})`);
const workOf = ({ shots, versions }: FilmView) => t.andYourKeys(shots, versions);
const ORIGINAL_STAYS = t.originalStays;

function losses(film: FilmView, space: SpaceView | undefined): string[] {
  return [
    t.itsProxyAndItsRenders(inBytes(space?.proxy), inBytes(space?.renders)),
    t.yourWorkInDaysUntil(workOf(film), film.isLinked, inBytes(space?.source), DAYS_KEPT),
    ...(film.isLinked ? [ORIGINAL_STAYS] : []),
  ];
}

function finalLosses(film: FilmView, space: SpaceView | undefined): string[] {
  return [
    film.isLinked ? t.yourWorkGoesNow(workOf(film)) : t.yourWorkAndItsFile(workOf(film), inBytes(space?.source)),
    ...(film.isLinked ? [ORIGINAL_STAYS] : []),
    t.thisCannotBeUndone,
  ];
}
