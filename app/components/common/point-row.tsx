import { ArrowLeftToLine, ArrowRightToLine, X } from "lucide-react";
import { IconButton } from "./button";
import { commonTexts } from "~/texts/common";

const t = commonTexts.pointRow;

interface PointRowProps {
  point: "in" | "out";
  /** The frame it is at, as timecode; null where it is not set. */
  timecode: string | null;
  /** What stands there then. */
  unset: string;
  /** What setting it does, and its shortcut. */
  hint: string;
  shortcut?: string;
  /** Removes it. */
  clearHint: string;
  clearShortcut?: string;
  disabled?: boolean;
  onSeek: () => void;
  onSet: () => void;
  onClear: () => void;
}

/** An in or out point: where it is, which goes there, and ways to set and remove it. */
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

/** How rows of points lie under one another. */
export const POINT_ROWS = "grid grid-cols-[2.5rem_1fr_auto] items-center gap-x-2 gap-y-1 text-sm";
