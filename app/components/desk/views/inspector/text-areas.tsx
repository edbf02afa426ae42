import { Button, Hint } from "~/components/common/button";
import { fitsInto } from "~/core/path/protected-box";
import { extentOf, laidOver, type Track, wordsOf } from "~/core/subjects/tracking/track";
import type { TrackEdit } from "~/core/subjects/tracking/edit-tracks";
import type { Size } from "~/core/geometry/box";
import type { DeskShot } from "../../model/desk-types";
import { inspectorTexts } from "~/texts/inspector";
import { textName } from "~/texts/text-name";

const t = inspectorTexts.textAreas;

interface TextAreasProps {
  shot: DeskShot;
  /** The largest window. */
  window: Size;
  onEdit: (trackId: string, edit: TrackEdit) => void;
  onSeek: (frame: number) => void;
}

/** The texts and insets of a shot: where they are, whether the window can hold them, and a way to mark them as none. */
export function TextAreas({ shot, window, onEdit, onSeek }: TextAreasProps) {
  const texts = laidOver(shot.tracks);
  if (texts.length === 0) return null;
  const remove = ({ id }: Track) => onEdit(id, { removed: [{ start: shot.start, end: shot.end }], joinedTo: null });
  return (
    <ul aria-label={t.textOverThePicture} className="flex flex-col gap-1">
      {texts.map((track) => {
        const { start, end } = extentOf(track);
        const box = track.boxes[0]!;
        return (
          <li key={track.id} className="flex items-center justify-between gap-2">
            <button
              type="button"
              className="text-left text-xs text-soft underline-offset-2 hover:underline"
              onClick={() => onSeek(start)}
            >
              {t.area(
                track.kind === "inset" ? t.inset : textName(wordsOf(track), track.mayBeSign),
                end - start,
                fitsInto(box, window) ? t.keptInTheWindow : t.tooWideToKeep,
              )}
            </button>
            <Hint text={t.doNotKeepThisText}>
              <Button className="shrink-0 !px-2 !py-1 text-xs" onClick={() => remove(track)}>
                {t.ignore}
              </Button>
            </Hint>
          </li>
        );
      })}
    </ul>
  );
}
