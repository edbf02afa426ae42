import type { FrameRange } from "~/core/time/rate";
import { framesIn, rangeLength } from "~/core/time/rate";
import { clipRanges } from "~/core/time/ranges";
import type { DeskPort } from "./desk-model";
import { deskSelector } from "./desk-selector";

/** The range that is marked in the lane; null for none. */
export type MarkedRange = FrameRange | null;

/** The version's in and out points, and ranges of it that are left out. A range is marked first, then left out or brought back. */
export interface RangeCommands {
  /** Sets the in or out point at the playhead. */
  setIn: () => void;
  setOut: () => void;
  /** Removes the in or out point. */
  clear: (point: "in" | "out") => void;
  leaveOut: (ranges: readonly FrameRange[]) => void;
  /** Brings back what is left out of these ranges. */
  bringBack: (ranges: readonly FrameRange[]) => void;
  marked: MarkedRange;
  markRange: (range: MarkedRange) => void;
  /** Starts or ends the marked range at the playhead. */
  beginRange: () => void;
  endRange: () => void;
  /** Leaves out the marked range, or brings it back where all of it is left out. */
  toggleRange: () => void;
}

export function rangeCommands({ get, put }: DeskPort) {
  const here = () => get().player?.getTarget() ?? 0;
  const trim = (points: { in?: number | null; out?: number | null }) => {
    const { edits, version } = get();
    edits.send({ type: "trim-version", versionId: version.id, ...points });
  };
  const send = (type: "leave-out" | "bring-back") => (ranges: readonly FrameRange[]) => {
    const { edits, version } = get();
    edits.send({ type, versionId: version.id, ranges: [...ranges] });
  };
  const [leaveOut, bringBack] = [send("leave-out"), send("bring-back")];
  const markRange = (markedRange: MarkedRange) => put({ markedRange });
  const commands: Omit<RangeCommands, "marked"> = {
    setIn: () => trim({ in: here() }),
    setOut: () => trim({ out: here() + 1 }),
    clear: (point) => trim({ [point]: null }),
    leaveOut,
    bringBack,
    markRange,
    beginRange: () => {
      const start = here();
      markRange({ start, end: Math.max(start + 1, get().markedRange?.end ?? 0) });
    },
    endRange: () => {
      const end = here() + 1;
      markRange({ start: Math.min(end - 1, get().markedRange?.start ?? end - 1), end });
    },
    toggleRange: () => {
      const { markedRange: range, kept } = get();
      if (!range || rangeLength(range) === 0) return;
      if (framesIn(clipRanges(kept, range)) > 0) leaveOut([range]);
      else bringBack([range]);
      markRange(null);
    },
  };
  return deskSelector([(desk) => desk.markedRange], (marked): RangeCommands => ({ ...commands, marked }));
}
