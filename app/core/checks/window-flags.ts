/** Windows that still move at a cut, and windows stuck at the picture's edge. */
import { filmPanes, type Pane, type ShownAt } from "../composition/composition";
import { type Box, boxCentre } from "../geometry/box";
import { boxAt, type Track } from "../subjects/tracking/track";
import { framesPerSecond } from "../time/rate";
import { flagsTexts } from "../../texts/flags";
import type { CheckedShot } from "./checked-shot";
import { type Flag, severityOf } from "./flag";
import { troubleIn } from "./trouble";

const t = flagsTexts.windowFlags;

/** Seconds over which a speed is measured. */
const SPEED_SECONDS = 0.16;
/** A window whose speed differs from its subject's by less than this share moves along with it. */
const GOES_ALONG = 0.5;
/** Widths per second beyond the limit that count as the worst. */
const WORST_SPEED = 0.6;
/** Pixels of the source within which a window is at the edge of its area. */
const AT_EDGE = 1;
/** How much wider than the window the area must be to leave room. */
const HAS_ROOM = 1.05;
/** Distance of a subject from the window's centre that counts as beside it, in window widths. */
const BESIDE = 0.25;

const firstPane = (shown: ShownAt, frame: number): Pane | undefined => filmPanes(shown(frame))[0];

/** Velocity between two frames, in pixels of the source per frame; null where it is unknown. */
function speedBetween(at: (frame: number) => { x: number; y: number } | null, from: number, to: number) {
  const [a, b] = [at(from), at(to)];
  return a && b ? { x: (b.x - a.x) / (to - from), y: (b.y - a.y) / (to - from) } : null;
}

/** Speed of the window at a shot's start or end, where it is too fast and does not follow its subject. */
export function movingAt(
  side: "start" | "end",
  { kept, limits, rate }: Pick<CheckedShot, "kept" | "limits" | "rate">,
  subject: Track | null,
  shown: ShownAt,
): Flag | null {
  const fps = framesPerSecond(rate);
  const span = Math.max(1, Math.round(SPEED_SECONDS * fps));
  const isStart = side === "start";
  const part = isStart ? kept[0]! : kept.at(-1)!;
  const from = isStart ? part.start : Math.max(part.end - 1 - span, part.start);
  const to = isStart ? Math.min(part.start + span, part.end - 1) : part.end - 1;
  const frame = isStart ? from : to;
  if (to <= from) return null;
  const centreOf = (box: Box | null | undefined) => (box ? boxCentre(box) : null);
  const moves = speedBetween((at) => centreOf(firstPane(shown, at)?.source), from, to);
  if (!moves) return null;
  const length = Math.hypot(moves.x, moves.y);
  const speed = (length * fps) / firstPane(shown, frame)!.source.width;
  if (speed <= limits.movingAtCut) return null;
  const along = speedBetween((at) => centreOf(subject && boxAt(subject, at)), from, to);
  if (along && Math.hypot(moves.x - along.x, moves.y - along.y) < GOES_ALONG * length) return null;
  return {
    kind: "moving-at-cut",
    range: { start: from, end: to + 1 },
    frame,
    text: isStart ? t.movesAtTheStart(speed) : t.movesAtTheEnd(speed),
    severity: severityOf("moving-at-cut", 0.3 + (speed - limits.movingAtCut) / WORST_SPEED),
  };
}

/** Where the window is stuck at the picture's edge with its subject far off centre. */
export function stuckFlags({ kept, area, limits, rate }: CheckedShot, subject: Track | null, shown: ShownAt): Flag[] {
  if (!subject) return [];
  /** How far beyond the limit the subject is off centre, towards the edge at which the window is stuck. */
  const besideAlong = (frame: number) => {
    const pane = firstPane(shown, frame);
    const box = boxAt(subject, frame);
    if (!pane || !box) return 0;
    const { source } = pane;
    if (area.width < HAS_ROOM * source.width) return 0;
    const beside = (boxCentre(box).x - boxCentre(source).x) / source.width;
    const atLeft = source.x <= area.x + AT_EDGE && beside < -BESIDE;
    const atRight = source.x + source.width >= area.x + area.width - AT_EDGE && beside > BESIDE;
    return atLeft || atRight ? Math.abs(beside) : 0;
  };
  return troubleIn(kept, rate, {
    kind: "at-edge",
    limit: limits.edge,
    // Half a width is the window's own edge.
    at: (frame) => Math.min(1, 2 * besideAlong(frame)),
    text: (seconds, worst) => t.atThePicturesEdge(seconds, worst / 2),
  });
}
