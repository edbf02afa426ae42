import { counted } from "~/texts/numbers";
import type { Box, Size } from "~/core/geometry/box";

/** Lines about a film's letterbox; none where it has none. */
export function barsLines(shots: readonly { active: Box | null }[], picture: Size): string[] {
  const counts = new Map<string, number>();
  for (const { active } of shots) {
    if (!active) continue;
    const { x, y, width, height } = active;
    const text = `${width} × ${height} at ${x}, ${y}`;
    counts.set(text, (counts.get(text) ?? 0) + 1);
  }
  const whole = `${picture.width} × ${picture.height}`;
  return [...counts].map(
    ([text, count]) => `Letterbox left out in ${counted(count, "shot")}: ${text} is left of ${whole}.`,
  );
}
