import { Button, Hint } from "~/components/common/button";
import { SelectMenu } from "~/components/common/select-menu";
import { longestGap } from "~/core/checks/framing-flags";
import type { TrackEdit } from "~/core/subjects/tracking/edit-tracks";
import { extentOf, seenTogether } from "~/core/subjects/tracking/track";
import type { Player } from "../../model/player";
import { useFrame } from "../../hooks/use-player";
import { type DeskShot, followedIn } from "../../model/desk-types";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.trackTools;

interface TrackToolsProps {
  shot: DeskShot;
  player: Player | null;
  onEdit: (trackId: string, edit: TrackEdit | null) => void;
  onUnmark: (frame: number) => void;
  onSeek: (frame: number) => void;
}

/** Commands on the track that a shot follows, and where it is lost. */
export function TrackTools({ shot, player, onEdit, onUnmark, onSeek }: TrackToolsProps) {
  const frame = useFrame(player);
  const followed = followedIn(shot);
  const marked = shot.marks.some((mark) => mark.frame === frame);
  if (!followed) return null;
  const { track } = followed;
  const gap = longestGap(track);
  const { start, end } = extentOf(track);
  const isPart = start > shot.start || end < shot.end;
  const name = followed.name ?? followed.letter;
  const cut = (removed: TrackEdit["removed"]) => onEdit(track.id, { removed, joinedTo: null });
  const others = shot.cast.filter(
    (other) => other !== followed && other.track.kind === track.kind && !seenTogether(other.track, track),
  );
  return (
    <section aria-label={t.track} className="flex flex-col gap-2">
      <span className="text-xs text-soft">
        {isPart ? t.partOfTrack(name, end - start, shot.end - shot.start) : t.trackOf(name)}
      </span>
      {gap && (
        <button
          type="button"
          className="self-start text-xs text-warn underline-offset-2 hover:underline"
          onClick={() => onSeek(gap.start)}
        >
          {t.lostGoThere(gap.end - gap.start)}
        </button>
      )}
      <div className="flex flex-wrap gap-1.5">
        {marked && (
          <Button className="!px-2 !py-1 text-xs" onClick={() => onUnmark(frame)}>
            {t.removeThisMark}
          </Button>
        )}
        <Hint text={t.trimBeforeHint}>
          <Button
            className="!px-2 !py-1 text-xs"
            disabled={frame <= start}
            onClick={() => cut([{ start, end: frame }])}
          >
            {t.trimBeforeHere}
          </Button>
        </Hint>
        <Hint text={t.trimFromHint}>
          <Button className="!px-2 !py-1 text-xs" disabled={frame >= end} onClick={() => cut([{ start: frame, end }])}>
            {t.trimFromHere}
          </Button>
        </Hint>
        <Hint text={t.deleteHint}>
          <Button className="!px-2 !py-1 text-xs" onClick={() => cut([{ start: shot.start, end: shot.end }])}>
            {t.delete}
          </Button>
        </Hint>
        {others.length > 0 && (
          <SelectMenu
            label={t.joinToAnotherTrack}
            placeholder={t.joinTo}
            small
            items={others.map(({ letter, track: other }) => ({
              value: other.id,
              text: t.fromFrame(letter, other.start),
            }))}
            onChange={(into) => onEdit(track.id, { removed: [], joinedTo: into })}
          />
        )}
      </div>
    </section>
  );
}
