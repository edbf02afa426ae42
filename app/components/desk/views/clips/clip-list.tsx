import { Replace, X } from "lucide-react";
import { IconButton } from "~/components/common/button";
import { POINT_ROWS, PointRow } from "~/components/common/point-row";
import { SortableList, SortableRow } from "~/components/common/sortable-list";
import { Poster } from "~/components/library/poster";
import { type Clip, shownOfClip } from "~/core/clips/clip";
import { inRange, rangeLength } from "~/core/time/rate";
import { formatTimecode, timecodeAt } from "~/core/time/timecode";
import { useFrame } from "../../hooks/use-player";
import { useDesk } from "../../hooks/use-desk";
import type { DraftClip } from "./use-clip-draft";
import { useClipPictures } from "./use-clip-pictures";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.clipList;

interface ClipListProps {
  clips: readonly DraftClip[];
  onMove: (from: number, to: number) => void;
  onReplace: (clip: DraftClip) => void;
  onTakeOut: (clip: DraftClip) => void;
}

/** Clips in order, rearranged by dragging with mouse or keyboard. */
export function ClipList({ clips, onMove, onReplace, onTakeOut }: ClipListProps) {
  const { state } = useDesk("state");
  const pictures = useClipPictures();
  const keys = clips.map(({ key }) => key);
  return (
    <SortableList label={t.clipsInOrder} keys={keys} onMove={onMove} className="flex flex-col gap-2">
      {clips.map((clip, i) => (
        <ClipRow
          key={clip.key}
          clip={clip}
          number={i + 1}
          placed={clip.from ? undefined : state.clips.find(({ id }) => id === clip.clipId)}
          picture={clip.clipId === null ? undefined : pictures.get(clip.clipId)}
          isOnly={clips.length === 1}
          onReplace={() => onReplace(clip)}
          onTakeOut={() => onTakeOut(clip)}
        />
      ))}
    </SortableList>
  );
}

interface ClipRowProps {
  clip: DraftClip;
  number: number;
  /** Its place in the film; undefined where it has none yet, or the film is one file. */
  placed: Clip | undefined;
  picture: string | undefined;
  isOnly: boolean;
  onReplace: () => void;
  onTakeOut: () => void;
}

function ClipRow({ clip, number, placed, picture, isOnly, onReplace, onTakeOut }: ClipRowProps) {
  const { film, player } = useDesk("film", "player");
  const frames = placed ? rangeLength(shownOfClip(placed)) : (clip.from?.info.frames ?? film.frames);
  const rate = clip.from?.info.rate ?? film.rate;
  return (
    <SortableRow
      id={clip.key}
      label={t.clip(number, clip.name)}
      name={clip.name}
      className="flex flex-col gap-2 rounded-md border bg-raised p-2"
    >
      {(grip) => (
        <>
          <div className="flex items-center gap-2">
            {grip}
            <button
              type="button"
              aria-label={t.goTo(clip.name)}
              disabled={!placed}
              onClick={() => placed && player?.seek(shownOfClip(placed).start)}
              className="flex h-10 w-16 shrink-0 items-center justify-center overflow-hidden rounded-sm bg-well"
            >
              {clip.from ? (
                <Poster film={clip.from} ready />
              ) : (
                picture && <img src={picture} alt="" className="max-h-full max-w-full" />
              )}
            </button>
            <div className="min-w-0 grow">
              <p className="truncate text-sm font-medium">
                {number} {clip.name}
              </p>
              <p className="font-mono text-xs text-soft">
                {formatTimecode(frames, rate)}
                {clip.from && <span className="ml-2 font-sans text-accent">{clip.clipId ? t.replaced : t.new}</span>}
              </p>
            </div>
            <IconButton label={t.replace(clip.name)} onClick={onReplace} disabled={clip.clipId === null}>
              <Replace className="size-4" aria-hidden />
            </IconButton>
            <IconButton label={t.takeOut(clip.name)} onClick={onTakeOut} disabled={isOnly}>
              <X className="size-4" aria-hidden />
            </IconButton>
          </div>
          {placed && <ClipPoints clip={placed} />}
        </>
      )}
    </SortableRow>
  );
}

/** In and out point of a clip, set at the playhead while that is in the clip. */
function ClipPoints({ clip }: { clip: Clip }) {
  const { film, player, edits } = useDesk("film", "player", "edits");
  const here = useFrame(player);
  const isHere = inRange(here, clip);
  const at = here - clip.start;
  const trim = (first: number | null, out: number | null) =>
    edits.send({ type: "trim-clip", clipId: clip.id, in: first, out });
  const frameText = (frame: number) => timecodeAt(frame, film.clock);
  const hint = isHere ? "" : t.playheadHint;
  return (
    <dl className={`${POINT_ROWS} pl-6 text-xs`}>
      <PointRow
        point="in"
        timecode={clip.in === null ? null : frameText(clip.start + clip.in)}
        unset={t.itsFirstFrame}
        hint={t.beginAtPlayhead(hint)}
        clearHint={t.showFromFirst}
        disabled={!isHere || at === 0}
        onSeek={() => player?.seek(shownOfClip(clip).start)}
        onSet={() => trim(at, clip.out !== null && clip.out <= at ? null : clip.out)}
        onClear={() => trim(null, clip.out)}
      />
      <PointRow
        point="out"
        timecode={clip.out === null ? null : frameText(clip.start + clip.out - 1)}
        unset={t.itsLastFrame}
        hint={t.endAtPlayhead(hint)}
        clearHint={t.showToLast}
        disabled={!isHere || here === clip.end - 1}
        onSeek={() => player?.seek(shownOfClip(clip).end - 1)}
        onSet={() => trim(clip.in !== null && clip.in > at ? null : clip.in, at + 1)}
        onClear={() => trim(clip.in, null)}
      />
    </dl>
  );
}
