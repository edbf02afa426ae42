/** Brings the work on a film to a new export of it, in which shots are trimmed, moved, new or gone. */
import { type Box, boxArea, clipBox, type Point, type Size, visiblePart, wholeOf } from "../geometry/box";
import { aspectRatio, clampWindow } from "../geometry/crop-window";
import type { HandKey } from "../path/hand-key";
import type { ShotMatch } from "../shots/match-shots";
import { shotId } from "../shots/reshape";
import { freshShot, type Shot } from "../shots/shot";
import { AUTO, type FollowRule } from "../subjects/choosing/follow-rule";
import { markTrackId, thingOfTrack, type ThingMark } from "../subjects/marks/marked-things";
import { boxAt, type Track } from "../subjects/tracking/track";
import { type FrameRange, framesOf, inRange } from "../time/rate";
import { clipRanges, joinRanges } from "../time/ranges";
import { byFrame } from "./difference";
import type { FilmFacts, FilmState, VersionState } from "./film-state";
import type { ShotInVersion } from "./shot-in-version";
import type { Trim } from "./trim";

/** Where everything of the old film is in the new one. */
class Move {
  private readonly byId: ReadonlyMap<string, ShotMatch>;
  private readonly scale: Point;

  constructor(
    private readonly shots: readonly Shot[],
    matches: readonly ShotMatch[],
    private readonly ratio: number,
    from: Size,
    private readonly to: Size,
  ) {
    this.byId = new Map(matches.map((match) => [match.id, match]));
    this.scale = { x: to.width / from.width, y: to.height / from.height };
  }

  /** The frames of the new film that show a shot; null for none. */
  rangeOf(id: string): FrameRange | null {
    return this.byId.get(id)?.range ?? null;
  }

  /** Where a frame of a shot is, or would be if all of the shot were there. */
  private at(frame: number, { shift }: ShotMatch): number {
    return Math.round(this.ratio * frame) + shift;
  }

  /** Where a frame is; null where it is not in the new film. */
  frame(frame: number): number | null {
    const shot = this.shots.find((range) => inRange(frame, range));
    const match = shot && this.byId.get(shot.id);
    if (!match?.range) return null;
    const to = this.at(frame, match);
    return inRange(to, match.range) ? to : null;
  }

  /** What is left of ranges. */
  ranges(ranges: readonly FrameRange[]): FrameRange[] {
    return joinRanges(
      this.shots.flatMap((shot) => {
        const match = this.byId.get(shot.id);
        if (!match?.range) return [];
        const moved = clipRanges(ranges, shot).map(({ start, end }) => ({
          start: this.at(start, match),
          end: this.at(end, match),
        }));
        return clipRanges(moved, match.range);
      }),
    );
  }

  box({ x, y, width, height }: Box): Box {
    const { scale, to } = this;
    const scaled = { x: x * scale.x, y: y * scale.y, width: width * scale.x, height: height * scale.y };
    return clipBox(scaled, to);
  }

  part(box: Box | null): Box | null {
    return box && visiblePart(this.box(box), this.to);
  }

  key(key: HandKey, aspect: number): HandKey[] {
    const frame = this.frame(key.frame);
    if (frame === null) return [];
    const scaled = { x: key.x * this.scale.x, y: key.y * this.scale.y, height: key.height * this.scale.y };
    return [{ frame, easing: key.easing, ...clampWindow(scaled, wholeOf(this.to), aspect) }];
  }
}

/** Shots of the new film: those that were found again, and new ones where nothing was. */
function movedShots(state: FilmState, { id: filmId, frames }: FilmFacts, move: Move): Shot[] {
  const placed = state.shots
    .flatMap((shot) => {
      const range = move.rangeOf(shot.id);
      return range ? [{ shot, range }] : [];
    })
    .sort((a, b) => a.range.start - b.range.start);
  const taken = new Set(placed.map(({ shot }) => shot.id));
  const shots: Shot[] = [];
  const fill = (end: number) => {
    const start = shots.at(-1)?.end ?? 0;
    if (end <= start) return;
    const id = shotId(filmId, start, taken);
    taken.add(id);
    shots.push(freshShot(id, { start, end }, null));
  };
  for (const { shot, range } of placed) {
    fill(Math.min(range.start, frames));
    const start = Math.max(range.start, shots.at(-1)?.end ?? 0);
    const end = Math.min(range.end, frames);
    // Two that were found in one place: the first has it.
    if (end <= start) continue;
    const begins = start === 0 || shot.begins === "fade" ? "cut" : shot.begins;
    const [mixed = { start, end: start }] = clipRanges(move.ranges([shot.mixed]), { start: 0, end });
    const isMixed = mixed.start <= start && begins !== "cut";
    shots.push({
      ...shot,
      ...{ start, end, begins, mixed: isMixed ? mixed : { start, end: start }, carry: shot.carry && start > 0 },
      ...{ protect: move.part(shot.protect), active: move.part(shot.active) },
    });
  }
  fill(frames);
  return shots;
}

/** Keeps following what a shot follows: tracks are found anew, and then are others. */
class Followed {
  readonly marks: ThingMark[];

  constructor(
    state: FilmState,
    private readonly move: Move,
    private readonly tracksOf: (shotId: string) => readonly Track[],
    private readonly newId: () => string,
  ) {
    this.marks = state.marks.flatMap(({ thing, frame, box }) => {
      const to = move.frame(frame);
      return to === null ? [] : [{ thing, frame: to, box: move.box(box) }];
    });
  }

  rule(rule: FollowRule, shot: Pick<Shot, "id">): FollowRule {
    if (rule.kind !== "track") return rule;
    const thing = thingOfTrack(rule.trackId);
    const range = this.move.rangeOf(shot.id);
    if (!range) return AUTO;
    if (thing) return this.marks.some((mark) => mark.thing === thing && inRange(mark.frame, range)) ? rule : AUTO;
    const mark = this.markOf(this.tracksOf(shot.id).find(({ id }) => id === rule.trackId));
    if (!mark) return AUTO;
    this.marks.push(mark);
    return { kind: "track", trackId: markTrackId(mark.thing) };
  }

  /** A box around a track, where it is largest of what is left of it. */
  private markOf(track: Track | undefined): ThingMark | null {
    let best: { frame: number; box: Box } | null = null;
    for (const frame of track ? framesOf({ start: track.start, end: track.start + track.boxes.length }) : []) {
      const box = boxAt(track!, frame);
      const to = this.move.frame(frame);
      if (box && to !== null && boxArea(box) > (best ? boxArea(best.box) : 0)) best = { frame: to, box };
    }
    return best && { thing: this.newId(), frame: best.frame, box: this.move.box(best.box) };
  }
}

function movedTrim(trim: Trim, move: Move): Trim {
  const first = trim.in === null ? null : move.frame(trim.in);
  const last = trim.out === null ? null : move.frame(trim.out - 1);
  const out = last === null ? null : last + 1;
  return {
    in: first,
    out: first !== null && out !== null && out <= first ? null : out,
    drops: move.ranges(trim.drops),
  };
}

/**
 * The state of a film with a new export of it in its place. Shots that were found again keep all that was set for them;
 * keys, marks, in and out points and dropped stretches move with the frames they are at, and those at frames that are
 * gone go. A track that is followed becomes a mark at its largest box, because tracks are found anew.
 *
 * @param to what is known of the new export
 * @param ratio frames of the new film for each of the old one
 * @param tracksOf the tracks of a shot of the old film
 * @param newId gives an id that nothing has
 */
export function moveWork(
  state: FilmState,
  to: FilmFacts,
  matches: readonly ShotMatch[],
  ratio: number,
  tracksOf: (shotId: string) => readonly Track[],
  newId: () => string,
): FilmState {
  const move = new Move(state.shots, matches, ratio, state.film.picture, to.picture);
  const followed = new Followed(state, move, tracksOf, newId);
  const shots = movedShots(state, to, move).map((shot) => ({ ...shot, follow: followed.rule(shot.follow, shot) }));
  const ids = new Set(shots.map(({ id }) => id));
  const says = (id: string, said: ShotInVersion): ShotInVersion => ({
    ...said,
    ...(said.follow ? { follow: followed.rule(said.follow, { id }) } : {}),
    ...(said.protect ? { protect: move.part(said.protect) } : {}),
  });
  const versions = state.versions.map((version): VersionState => ({
    ...version,
    trim: movedTrim(version.trim, move),
    shots: new Map([...version.shots].flatMap(([id, said]) => (ids.has(id) ? [[id, says(id, said)] as const] : []))),
    handKeys: version.handKeys.flatMap((key) => move.key(key, aspectRatio(version))).sort(byFrame),
  }));
  const marks = followed.marks.sort((a, b) => (a.thing === b.thing ? a.frame - b.frame : a.thing < b.thing ? -1 : 1));
  return { ...state, film: to, shots, versions, marks, trackEdits: new Map() };
}
