import {
  Archive,
  ArchiveRestore,
  Copy,
  Ellipsis,
  FileDown,
  GalleryHorizontalEnd,
  Pencil,
  Replace,
  Trash2,
  Undo2,
} from "lucide-react";
import { type ReactNode, useState } from "react";
import { IconButton } from "~/components/common/button";
import { Menu, MenuItem } from "~/components/common/menu";
import { DeleteFilm } from "./delete-film";
import { useFilmActions } from "./film-actions";
import type { FilmView, SpaceView } from "./library-view";
import { JoinFilms, useJoin } from "./join-films";
import { RenameFilm } from "./rename-film";
import { ReplaceFile } from "./replace-file";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.filmMenu;

/** Ways to take a film's work to another machine. */
const SAVES = [
  { text: t.saveProject, query: "", needsOneFile: true },
  { text: t.saveItWithTheFilm, query: "?with=film", needsOneFile: false },
];

interface FilmMenuProps {
  film: FilmView;
  /** Bytes used, by purpose; undefined while unknown. */
  space: SpaceView | undefined;
  className?: string;
}

/** Commands on a whole film. */
export function FilmMenu({ film, space, className }: FilmMenuProps) {
  const [open, setOpen] = useState<"rename" | "replace" | "join" | "delete" | null>(null);
  const { act, isBusy } = useFilmActions(film);
  const join = useJoin();
  const close = () => setOpen(null);
  // Until the analysis is done, there is no complete work to copy.
  const isAnalysing = film.jobs.some(({ kind, state }) => kind === "analyse" && state !== "done");
  const item = (text: string, icon: ReactNode, onSelect: () => void, disabled = false) => (
    <MenuItem onSelect={onSelect} disabled={disabled}>
      {icon}
      {text}
    </MenuItem>
  );
  return (
    <>
      <Menu
        align="end"
        trigger={
          <IconButton label={t.moreFor(film.name)} disabled={isBusy} className={className}>
            <Ellipsis className="size-4" aria-hidden />
          </IconButton>
        }
      >
        {film.deletedAt !== null ? (
          <>
            {item(t.bringBack, <Undo2 className="size-4" aria-hidden />, () => act({ intent: "bring-back" }))}
            {item(t.deleteForGood, <Trash2 className="size-4" aria-hidden />, () => setOpen("delete"))}
          </>
        ) : (
          <>
            {item(t.rename, <Pencil className="size-4" aria-hidden />, () => setOpen("rename"))}
            {item(
              t.duplicateWithItsWork,
              <Copy className="size-4" aria-hidden />,
              () => act({ intent: "duplicate" }),
              isAnalysing,
            )}
            {item(
              t.replaceItsFile,
              <Replace className="size-4" aria-hidden />,
              () => setOpen("replace"),
              // In a film of clips, clips are replaced on its desk.
              isAnalysing || film.clips > 0,
            )}
            {item(t.joinWithOtherFilms, <GalleryHorizontalEnd className="size-4" aria-hidden />, () => setOpen("join"))}
            {film.hasEarlier &&
              item(t.putItsEarlierFileBack, <Undo2 className="size-4" aria-hidden />, () =>
                act({ intent: "put-earlier-back" }),
              )}
            {SAVES.map(({ text, query, needsOneFile }) => (
              <MenuItem key={text} asChild disabled={isAnalysing || (needsOneFile && film.clips > 0)}>
                <a href={`/media/${film.id}/work.gladpan${query}`} download>
                  <FileDown className="size-4" aria-hidden />
                  {text}
                </a>
              </MenuItem>
            ))}
            {film.putAway
              ? item(t.takeOutAgain, <ArchiveRestore className="size-4" aria-hidden />, () =>
                  act({ intent: "take-out" }),
                )
              : item(t.putAway, <Archive className="size-4" aria-hidden />, () => act({ intent: "put-away" }))}
            {item(t.delete, <Trash2 className="size-4" aria-hidden />, () => setOpen("delete"))}
          </>
        )}
      </Menu>
      {open === "rename" && (
        <RenameFilm name={film.name} onRename={(name) => act({ intent: "rename", name })} onClose={close} />
      )}
      {open === "replace" && <ReplaceFile film={film} act={act} onClose={close} />}
      {open === "join" && <JoinFilms first={film} onJoin={join} onClose={close} />}
      {open === "delete" && <DeleteFilm film={film} space={space} onDelete={act} onClose={close} />}
    </>
  );
}
