/** Moves the work on a film to another that shows the same: a new export of it, or its clips rearranged. */
import { byStart as byCaption } from "../captions/caption";
import { narrowestPane } from "../composition/layout";
import { type Box, boxArea } from "../geometry/box";
import { shotId } from "../shots/reshape";
import { freshShot, type Shot } from "../shots/shot";
import { AUTO, type FollowRule } from "../subjects/choosing/follow-rule";
import { markTrackId, thingOfTrack, type ThingMark } from "../subjects/marks/marked-things";
import type { TrackEdit } from "../subjects/tracking/edit-tracks";
import { boxAt, type Track } from "../subjects/tracking/track";
import { framesOf, inRange } from "../time/rate";
import { clipRanges } from "../time/ranges";
import { byFrame, byThing } from "./difference";
import { Move, type MovedPart } from "./move";
import type { FilmFacts, FilmState, VersionState } from "../version/film-state";
import { type ShotInVersion, withRules } from "../version/settle";
import type { Trim } from "../version/trim";

/** Shots of the new film: those found again, and new ones elsewhere. */
function movedShots(state: FilmState, { id: filmId, frames }: FilmFacts, move: Move): Shot[] {
  const placed = state.shots
    .flatMap((shot) => {
      const range = move.range(shot);
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
    // Two shots found in one place: the first one gets it.
    if (end <= start) continue;
    const begins = start === 0 || shot.begins === "fade" ? "cut" : shot.begins;
    const [mixed = { start, end: start }] = clipRanges(move.ranges([shot.mixed]), { start: 0, end });
    const isMixed = mixed.start <= start && begins !== "cut";
    shots.push({
      ...shot,
      start,
      end,
      begins,
      mixed: isMixed ? mixed : { start, end: start },
      carry: shot.carry && start > 0,
      protect: move.part(shot.protect, shot.start),
      active: move.part(shot.active, shot.start),
    });
  }
  fill(frames);
  return shots;
}

/** How the subject of a shot is tracked in the new film. */
export interface Tracking {
  /** Id of a track in the new film, where it is known; null where tracks are found anew, with other ids. */
  rename: (trackId: string) => string | null;
  /** The tracks of a shot of the old film. */
  tracksOf: (shotId: string) => readonly Track[];
  /** Makes an unused id. */
  newId: () => string;
}

/** Carries over what a shot follows. */
class Followed {
  readonly marks: ThingMark[];

  constructor(
    state: FilmState,
    private readonly move: Move,
    private readonly tracking: Tracking,
  ) {
    this.marks = state.marks.flatMap(({ thing, frame, box }) => {
      const to = move.frame(frame);
      return to === null ? [] : [{ thing, frame: to, box: move.box(box, frame) }];
    });
  }

  rule(rule: FollowRule, shot: Pick<Shot, "id" | "start" | "end">): FollowRule {
    if (rule.kind === "track") {
      const trackId = this.track(rule.trackId, shot);
      return trackId === null ? AUTO : { kind: "track", trackId };
    }
    if (rule.kind !== "switches") return rule;
    const tracks = new Map<string, string | null>();
    const switches = rule.switches.flatMap(({ frame, trackIds }) => {
      const to = this.move.frame(Math.max(frame, shot.start));
      if (to === null) return [];
      for (const id of trackIds) if (!tracks.has(id)) tracks.set(id, this.track(id, shot));
      return [{ frame: to, trackIds: trackIds.flatMap((id) => tracks.get(id) ?? []) }];
    });
    return switches.some(({ trackIds }) => trackIds.length > 0) ? { kind: "switches", switches } : AUTO;
  }

  /** A track of a shot by its id in the new film, if need be as a mark; null where it cannot be found there. */
  private track(trackId: string, shot: Pick<Shot, "id" | "start" | "end">): string | null {
    const thing = thingOfTrack(trackId);
    const range = this.move.range(shot);
    if (!range) return null;
    if (thing) return this.marks.some((mark) => mark.thing === thing && inRange(mark.frame, range)) ? trackId : null;
    const known = this.tracking.rename(trackId);
    if (known !== null) return known;
    const mark = this.markOf(this.tracking.tracksOf(shot.id).find(({ id }) => id === trackId));
    if (!mark) return null;
    this.marks.push(mark);
    return markTrackId(mark.thing);
  }

  /** A mark around a track, at its largest remaining box. */
  private markOf(track: Track | undefined): ThingMark | null {
    let best: { from: number; frame: number; box: Box } | null = null;
    for (const frame of track ? framesOf({ start: track.start, end: track.start + track.boxes.length }) : []) {
      const box = boxAt(track!, frame);
      const to = this.move.frame(frame);
      if (box && to !== null && boxArea(box) > (best ? boxArea(best.box) : 0)) best = { from: frame, frame: to, box };
    }
    return best && { thing: this.tracking.newId(), frame: best.frame, box: this.move.box(best.box, best.from) };
  }
}

function movedTrim(trim: Trim, move: Move): Trim {
  const first = trim.in === null ? null : move.frame(trim.in);
  const last = trim.out === null ? null : move.frame(trim.out - 1);
  const out = last === null ? null : last + 1;
  return {
    in: first,
    out: first !== null && out !== null && out <= first ? null : out,
    leftOut: move.ranges(trim.leftOut),
  };
}

/** The editor's changes to tracks that are known in the new film. */
function movedTrackEdits(state: FilmState, move: Move, { rename }: Tracking): Map<string, TrackEdit> {
  return new Map(
    [...state.trackEdits].flatMap(([trackId, { removed, joinedTo }]) => {
      const id = rename(trackId);
      if (id === null) return [];
      return [[id, { removed: move.ranges(removed), joinedTo: joinedTo && rename(joinedTo) }] as const];
    }),
  );
}

/**
 * The state of a film after its content was replaced. Shots found again keep all their settings; keys, marks, in and out
 * points and left-out ranges move with their frames, and those at missing frames are removed. A followed track that is no
 * longer known becomes a mark at its largest box.
 * @param to what is known of the new film
 * @param ratio frames of the new film per frame of the old one
 */
export function moveWork(
  state: FilmState,
  to: FilmFacts,
  parts: readonly MovedPart[],
  ratio: number,
  tracking: Tracking,
): FilmState {
  const move = new Move(parts, ratio, state.film.picture, to.picture);
  const followed = new Followed(state, move, tracking);
  const before = new Map(state.shots.map((shot) => [shot.id, shot]));
  const shots = movedShots(state, to, move).map((shot) => {
    const old = before.get(shot.id);
    return old ? { ...shot, follow: followed.rule(shot.follow, old) } : shot;
  });
  const ids = new Set(shots.map(({ id }) => id));
  const says = (shot: Shot, said: ShotInVersion): ShotInVersion => ({
    ...withRules(said, (rule) => followed.rule(rule, shot)),
    ...(said.protect ? { protect: move.part(said.protect, shot.start) } : {}),
  });
  const versions = state.versions.map((version): VersionState => ({
    ...version,
    trim: movedTrim(version.trim, move),
    layers: version.layers.flatMap((layer) => {
      if (!layer.range) return layer;
      const left = move.ranges([layer.range]);
      return left.length > 0 ? { ...layer, range: { start: left[0]!.start, end: left.at(-1)!.end } } : [];
    }),
    shots: new Map(
      [...version.shots].flatMap(([id, said]) => {
        const shot = before.get(id);
        return shot && ids.has(id) ? [[id, says(shot, said)] as const] : [];
      }),
    ),
    handKeys: version.handKeys.flatMap((key) => move.key(key, narrowestPane(to.picture, version))).sort(byFrame),
  }));
  const marks = followed.marks.sort(byThing);
  const captions = state.captions.flatMap((caption) => {
    const [range] = move.ranges([caption]);
    return range ? [{ ...caption, ...range }] : [];
  });
  const trackEdits = movedTrackEdits(state, move, tracking);
  return { ...state, film: to, shots, versions, marks, trackEdits, captions: captions.sort(byCaption) };
}
