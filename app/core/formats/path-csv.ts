/** The paths of a version as tables: a row per frame, or per keyframe. Places are in source pixels as displayed. */
import { csvFormatRows } from "d3-dsv";
import type { ShownAt } from "../composition/composition";
import { boxCentre } from "../geometry/box";
import type { Key } from "../path/keys";
import { type FrameRange, framesOf } from "../time/rate";
import { type Clock, timecodeAt } from "../time/timecode";

/** A shot with its path, as it is written. */
export interface WrittenShot {
  /** From 1. */
  number: number;
  kept: readonly FrameRange[];
  shown: ShownAt;
  /** Keys of each pane. */
  keys: readonly (readonly Key[])[];
}

const FRAME_COLUMNS = ["frame", "timecode", "shot", "pane", "x", "y", "width", "height"] as const;
const KEY_COLUMNS = ["frame", "timecode", "shot", "pane", "x", "y", "height", "easing", "by"] as const;

const rounded = (value: number): string => String(Math.round(value * 1000) / 1000);

/** The windows at each frame that is shown: centres and sizes. */
export function writePathCsv(shots: readonly WrittenShot[], clock: Clock): string {
  const rows = shots.flatMap(({ number, kept, shown }) =>
    kept.flatMap(framesOf).flatMap((frame) =>
      shown(frame).panes.flatMap(({ source, own }, pane) => {
        if (own) return [];
        const { x, y } = boxCentre(source);
        return [
          [
            String(frame),
            timecodeAt(frame, clock),
            String(number),
            String(pane + 1),
            ...[x, y, source.width, source.height].map(rounded),
          ],
        ];
      }),
    ),
  );
  return `${csvFormatRows([[...FRAME_COLUMNS], ...rows])}\n`;
}

/** The keys of the windows' paths: centres and heights. */
export function writeKeysCsv(shots: readonly WrittenShot[], clock: Clock): string {
  const rows = shots.flatMap(({ number, keys }) =>
    keys.flatMap((ofPane, pane) =>
      ofPane.map(({ frame, x, y, height, easing, by }) => [
        String(frame),
        timecodeAt(frame, clock),
        String(number),
        String(pane + 1),
        ...[x, y, height].map(rounded),
        easing,
        by,
      ]),
    ),
  );
  return `${csvFormatRows([[...KEY_COLUMNS], ...rows])}\n`;
}
