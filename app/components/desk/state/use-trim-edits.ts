import { useMemo, useState } from "react";
import { useLatest } from "~/components/common/use-latest";
import { type FrameRange, framesIn, rangeLength } from "~/core/time/rate";
import { clipRanges } from "~/core/time/ranges";
import type { Player } from "../picture/player";
import type { Edits } from "./use-edits";

/** What can be done to what of the film the version shows. Stretches are marked first, and then dropped or kept. */
export interface TrimEdits {
  /** The version begins with the frame under the playhead, or ends with it. */
  setIn: () => void;
  setOut: () => void;
  /** Takes the in or out point away. */
  clear: (point: "in" | "out") => void;
  drop: (stretches: readonly FrameRange[]) => void;
  /** Brings back what of stretches was dropped. */
  keep: (stretches: readonly FrameRange[]) => void;
  /** The stretch that is marked in the lane. */
  stretch: FrameRange | null;
  setStretch: (stretch: FrameRange | null) => void;
  /** The marked stretch begins with the frame under the playhead, or ends with it. */
  beginStretch: () => void;
  endStretch: () => void;
  /** Drops the marked stretch, or brings it back where all of it is dropped. */
  toggleStretch: () => void;
}

export function useTrimEdits(
  { send }: Edits,
  versionId: string,
  kept: readonly FrameRange[],
  player: Player | null,
): TrimEdits {
  const [stretch, setStretch] = useState<FrameRange | null>(null);
  const latest = useLatest({ stretch, kept });
  const edits = useMemo(() => {
    const here = () => player?.getTarget() ?? 0;
    const drop = (stretches: readonly FrameRange[]) =>
      send({ type: "drop-stretches", versionId, stretches: [...stretches] });
    const keep = (stretches: readonly FrameRange[]) =>
      send({ type: "keep-stretches", versionId, stretches: [...stretches] });
    return {
      setIn: () => send({ type: "trim-version", versionId, in: here() }),
      setOut: () => send({ type: "trim-version", versionId, out: here() + 1 }),
      clear: (point: "in" | "out") => send({ type: "trim-version", versionId, [point]: null }),
      drop,
      keep,
      setStretch,
      beginStretch: () => {
        const start = here();
        setStretch({ start, end: Math.max(start + 1, latest.current.stretch?.end ?? 0) });
      },
      endStretch: () => {
        const end = here() + 1;
        setStretch({ start: Math.min(end - 1, latest.current.stretch?.start ?? end - 1), end });
      },
      toggleStretch: () => {
        const { stretch: marked, kept: shown } = latest.current;
        if (!marked || rangeLength(marked) === 0) return;
        if (framesIn(clipRanges(shown, marked)) > 0) drop([marked]);
        else keep([marked]);
        setStretch(null);
      },
    };
  }, [send, versionId, latest, player]);
  return useMemo(() => ({ ...edits, stretch }), [edits, stretch]);
}
