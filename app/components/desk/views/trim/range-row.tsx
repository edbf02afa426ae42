import type { ReactNode } from "react";
import { type FrameRange, frameToSeconds, rangeLength } from "~/core/time/rate";
import { timecodeAt } from "~/core/time/timecode";
import { useDesk } from "../../hooks/use-desk";

export const inSeconds = (seconds: number): string => `${seconds.toFixed(1)} s`;

interface RangeRowProps {
  range: FrameRange;
  /** Its kind, beside its length. */
  what?: string;
  children: ReactNode;
}

/** Start of a range, which seeks there and marks it in the lane, its length, and commands on it. */
export function RangeRow({ range, what, children }: RangeRowProps) {
  const { film, player, rangeCommands } = useDesk("film", "player", "rangeCommands");
  const show = () => {
    player?.pause();
    player?.seek(range.start);
    rangeCommands.markRange({ start: range.start, end: range.end });
  };
  return (
    <li className="flex items-center gap-2 text-sm">
      <button type="button" className="rounded-sm bg-well px-1.5 font-mono text-xs hover:bg-line" onClick={show}>
        {timecodeAt(range.start, film.clock)}
      </button>
      <span className="min-w-0 grow py-1 text-xs text-soft">
        {inSeconds(frameToSeconds(rangeLength(range), film.rate))}
        {what && ` · ${what}`}
      </span>
      {children}
    </li>
  );
}
