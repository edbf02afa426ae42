/** What a flag rests on, as a word: it stays seen until that changes. */
import MurmurHash from "imurmurhash";
import type { ShownAt } from "../composition/composition";
import { framesOf } from "../time/rate";
import { LASTING, type Flag } from "./flag";

/** Half a pixel more or less is the same picture. */
const rounded = (value: number): number => Math.round(2 * value) / 2;

/**
 * The print of a look at a shot: its kind and its reason, and what is shown in each frame of its range. Frames count
 * from the shot's first, so that a shot that is moved as a whole keeps what was seen of it.
 *
 * @param shown what is shown at the shot's frames; null where that is not known
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
