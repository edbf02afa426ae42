import type { ReactNode } from "react";
import { type FrameRange, frameToSeconds, rangeLength } from "~/core/time/rate";
import { timecodeAt } from "~/core/time/timecode";
import { useDesk } from "../state/desk-context";

export const inSeconds = (seconds: number): string => `${seconds.toFixed(1)} s`;

interface StretchRowProps {
  stretch: FrameRange;
  /** What it is, beside its length. */
  what?: string;
  children: ReactNode;
}

/** Where a stretch begins, which goes there and marks it in the lane, and how long it is; with what can be done to it. */
export function StretchRow({ stretch, what, children }: StretchRowProps) {
  const { film, player, trimEdits } = useDesk();
  const show = () => {
    player?.pause();
    player?.seek(stretch.start);
    trimEdits.setStretch({ start: stretch.start, end: stretch.end });
  };
  return (
    <li className="flex items-center gap-2 text-sm">
      <button type="button" className="rounded-sm bg-well px-1.5 font-mono text-xs hover:bg-line" onClick={show}>
        {timecodeAt(stretch.start, film.clock)}
      </button>
      <span className="min-w-0 grow py-1 text-xs text-soft">
        {inSeconds(frameToSeconds(rangeLength(stretch), film.rate))}
        {what && ` · ${what}`}
      </span>
      {children}
    </li>
  );
}
