import { clsx } from "clsx";
import { formatRate, type Rate } from "~/core/time/rate";
import { formatTimecode } from "~/core/time/timecode";
import { Poster } from "./poster";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.filmPicker;

/** A film that can be selected. */
export interface PickableFilm {
  id: string;
  name: string;
  fingerprint: string | null;
  info: { picture: { width: number; height: number }; rate: Rate; frames: number };
}

interface FilmPickerProps {
  films: readonly PickableFilm[];
  /** Ids, in order of selection. */
  selected: readonly string[];
  /** Whether only one can be selected. */
  single?: boolean;
  onChange: (selected: string[]) => void;
}

/** Selects films of the library; several in an order, which is shown. */
export function FilmPicker({ films, selected, single, onChange }: FilmPickerProps) {
  const toggle = (id: string) => {
    if (single) return onChange([id]);
    onChange(selected.includes(id) ? selected.filter((other) => other !== id) : [...selected, id]);
  };
  if (films.length === 0) return <p className="text-sm text-soft">{t.noOtherFilms}</p>;
  return (
    <ul className="flex max-h-80 flex-col gap-1 overflow-y-auto" aria-label={t.filmsToSelect}>
      {films.map(({ id, name, fingerprint, info }) => {
        const place = selected.indexOf(id);
        return (
          <li key={id}>
            <button
              type="button"
              role={single ? "radio" : "checkbox"}
              aria-checked={place >= 0}
              aria-label={name}
              onClick={() => toggle(id)}
              className={clsx(
                "flex w-full items-center gap-3 rounded-md border px-2 py-1.5 text-left",
                place >= 0 ? "border-accent bg-accent-wash" : "border-transparent hover:bg-well",
              )}
            >
              <span className="w-5 text-center font-display font-semibold text-accent">
                {place >= 0 && (single ? "●" : place + 1)}
              </span>
              <span className="w-16 shrink-0">
                <Poster film={{ id, fingerprint }} ready />
              </span>
              <span className="min-w-0">
                <span className="block truncate text-sm font-medium">{name}</span>
                <span className="block text-xs text-soft">
                  {t.fps(
                    info.picture.width,
                    info.picture.height,
                    formatRate(info.rate),
                    formatTimecode(info.frames, info.rate),
                  )}
                </span>
              </span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
