import { useMemo, useState } from "react";
import { useLatest } from "~/components/common/use-latest";
import { type FrameRange, framesIn, rangeLength } from "~/core/time/rate";
import { clipRanges } from "~/core/time/ranges";
import type { Player } from "./player";
import type { Edits } from "../hooks/use-edits";

/** The version's in and out points, and ranges of it that are left out. A range is marked first, then left out or brought back. */
export interface TrimEdits {
  /** The version begins with the frame under the playhead, or ends with it. */
  setIn: () => void;
  setOut: () => void;
  /** Takes the in or out point away. */
  clear: (point: "in" | "out") => void;
  leaveOut: (ranges: readonly FrameRange[]) => void;
  /** Brings back what of the ranges is left out. */
  bringBack: (ranges: readonly FrameRange[]) => void;
  /** The range that is marked in the lane. */
  marked: FrameRange | null;
  markRange: (range: FrameRange | null) => void;
  /** The marked range begins with the frame under the playhead, or ends with it. */
  beginRange: () => void;
  endRange: () => void;
  /** Leaves out the marked range, or brings it back where all of it is left out. */
  toggleRange: () => void;
}

export function useTrimEdits(
  { send }: Edits,
  versionId: string,
  kept: readonly FrameRange[],
  player: Player | null,
): TrimEdits {
  const [marked, markRange] = useState<FrameRange | null>(null);
  const latest = useLatest({ marked, kept });
  const edits = useMemo(() => {
    const here = () => player?.getTarget() ?? 0;
    const leaveOut = (ranges: readonly FrameRange[]) => send({ type: "leave-out", versionId, ranges: [...ranges] });
    const bringBack = (ranges: readonly FrameRange[]) => send({ type: "bring-back", versionId, ranges: [...ranges] });
    return {
      setIn: () => send({ type: "trim-version", versionId, in: here() }),
      setOut: () => send({ type: "trim-version", versionId, out: here() + 1 }),
      clear: (point: "in" | "out") => send({ type: "trim-version", versionId, [point]: null }),
      leaveOut,
      bringBack,
      markRange,
      beginRange: () => {
        const start = here();
        markRange({ start, end: Math.max(start + 1, latest.current.marked?.end ?? 0) });
      },
      endRange: () => {
        const end = here() + 1;
        markRange({ start: Math.min(end - 1, latest.current.marked?.start ?? end - 1), end });
      },
      toggleRange: () => {
        const { marked: range, kept: shown } = latest.current;
        if (!range || rangeLength(range) === 0) return;
        if (framesIn(clipRanges(shown, range)) > 0) leaveOut([range]);
        else bringBack([range]);
        markRange(null);
      },
    };
  }, [send, versionId, latest, player]);
  return useMemo(() => ({ ...edits, marked }), [edits, marked]);
}
