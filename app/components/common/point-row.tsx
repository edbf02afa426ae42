import { ArrowLeftToLine, ArrowRightToLine, X } from "lucide-react";
import { IconButton } from "./button";
import { commonTexts } from "~/texts/common";

const t = commonTexts.pointRow;

interface PointRowProps {
  point: "in" | "out";
  /** Timecode of its frame; null where it is not set. */
  timecode: string | null;
  /** Text shown where it is not set. */
  unset: string;
  /** Hint of the button that sets it, with its shortcut. */
  hint: string;
  shortcut?: string;
  /** Hint of the button that removes it. */
  clearHint: string;
  clearShortcut?: string;
  disabled?: boolean;
  onSeek: () => void;
  onSet: () => void;
  onClear: () => void;
}

/** An in or out point: its timecode, which seeks there, and buttons to set and remove it. */
export function PointRow(props: PointRowProps) {
  const { point, timecode, unset, hint, shortcut, clearHint, clearShortcut, disabled, onSeek, onSet, onClear } = props;
  const Icon = point === "in" ? ArrowLeftToLine : ArrowRightToLine;
  return (
    <div className="contents">
      <dt className="text-soft">{point === "in" ? t.in : t.out}</dt>
      <dd>
        {timecode === null ? (
          <span className="text-soft">{unset}</span>
        ) : (
          <button type="button" className="rounded-sm bg-well px-1.5 font-mono text-xs hover:bg-line" onClick={onSeek}>
            {timecode}
          </button>
        )}
      </dd>
      <dd className="flex">
        <IconButton label={hint} shortcut={shortcut} disabled={disabled} onClick={onSet}>
          <Icon className="size-4" aria-hidden />
        </IconButton>
        <IconButton label={clearHint} shortcut={clearShortcut} disabled={timecode === null} onClick={onClear}>
          <X className="size-4" aria-hidden />
        </IconButton>
      </dd>
    </div>
  );
}

/** Grid of rows of points. */
export const POINT_ROWS = "grid grid-cols-[2.5rem_1fr_auto] items-center gap-x-2 gap-y-1 text-sm";
