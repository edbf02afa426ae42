/** What a flag rests on, as a short hash: it stays reviewed until that changes. */
import MurmurHash from "imurmurhash";
import type { ShownAt } from "../composition/composition";
import { framesOf } from "../time/rate";
import { LASTING, type Flag } from "./flag";

/** Differences of half a pixel do not count. */
const rounded = (value: number): number => Math.round(2 * value) / 2;

/**
 * The print of a flag in a shot: its kind and reason, and what is shown at each frame of its range. Frames count from the
 * shot's first, so that moving a shot keeps its flags reviewed.
 * @param shown at the shot's frames; null where that is not known
 */
export function flagPrint(
  { kind, pane = 0, range, text, otherId = "" }: Flag,
  shot: { id: string; start: number },
  shown: ShownAt | null,
): string {
  const { start } = shot;
  const hash = MurmurHash([kind, pane, range.start - start, range.end - start, text, otherId].join(" "));
  if (shown && LASTING.has(kind)) {
    for (const frame of framesOf(range)) {
      for (const { source, target } of shown(frame).panes) {
        hash.hash([source.x, source.y, source.height, target.x, target.y, target.height].map(rounded).join(" "));
      }
    }
  }
  return `${shot.id} ${hash.result().toString(36)}`;
}
