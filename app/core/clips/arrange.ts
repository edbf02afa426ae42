/** Rearranges a film of clips: another order, more or fewer clips, or replacements. */
import type { FilmFacts, FilmState } from "../version/film-state";
import { Move, type MovedPart } from "../edits/move";
import { moveWork, type Tracking } from "../edits/move-work";
import { clockOfFilm, type FilmInfo } from "../film/film-info";
import { type Box, boxContains, boxIntersection, type Size, wholeOf } from "../geometry/box";
import { shotId } from "../shots/reshape";
import { freshShot, LEAST_ACTIVE_SIDE, type Shot } from "../shots/shot";
import { hardTransition } from "../shots/transition";
import { framesPerSecond, inRange, type Rate, rangeLength } from "../time/rate";
import { type ClipWithFile, clipBorders } from "./clip";
import { type ClipFormat, infoOfClips } from "./info-of-clips";
import { movedTrackId } from "./move-findings";
import { planClips } from "./plan-clips";
import { type TakenFilm, withWorkOf } from "./take-work";

/** A clip wanted in a film, wherever it will be placed. */
export type WantedClip = Pick<ClipWithFile, "id" | "name" | "file" | "info" | "in" | "out">;

/** The new arrangement, and where in it the earlier parts are. */
export interface Arrangement {
  info: FilmInfo;
  clips: ClipWithFile[];
  /** By which the editor's work is moved. */
  parts: MovedPart[];
  /** Those of them whose findings stay valid. */
  known: MovedPart[];
  /** Frames per earlier frame. */
  ratio: number;
}

/** In and out points, fitted to a clip that may have become shorter. */
function fitting({ in: first, out }: Pick<WantedClip, "in" | "out">, frames: number): Pick<WantedClip, "in" | "out"> {
  const start = first !== null && first > 0 && first < frames ? first : null;
  return { in: start, out: out !== null && out > (start ?? 0) && out < frames ? out : null };
}

/**
 * Works out a new arrangement of a film of clips.
 * @param before its present state, in its own frames
 * @param rate of the film, where that is settled; if null, that of most of the clips' time
 */
export function arrange(
  before: { rate: Rate; clips: readonly ClipWithFile[] },
  wanted: readonly WantedClip[],
  rate: Rate | null,
  format: (rate: Rate) => ClipFormat,
): Arrangement {
  const infos = wanted.map(({ info }) => info);
  const plan = planClips(infos, rate ?? undefined);
  const ratio = framesPerSecond(plan.rate) / framesPerSecond(before.rate);
  const clips = wanted.map((clip, i): ClipWithFile => {
    const place = plan.clips[i]!;
    return { ...clip, ...place, ...fitting(clip, rangeLength(place)) };
  });
  const known: MovedPart[] = [];
  const parts = before.clips.flatMap((old) => {
    const clip = clips.find(({ id }) => id === old.id);
    if (!clip) return [];
    const part: MovedPart = {
      from: { start: old.start, end: old.end },
      to: { start: clip.start, end: clip.end },
      shift: clip.start - Math.round(ratio * old.start),
      areas: { from: old.area, to: clip.area },
    };
    if (clip.file === old.file && ratio === 1) known.push(part);
    return [part];
  });
  return { info: infoOfClips(plan, infos, format(plan.rate)), clips, parts, known, ratio };
}

/** Shots that end where another clip begins. */
function splitAtBorders(shots: readonly Shot[], filmId: string, borders: readonly number[]): Shot[] {
  const taken = new Set(shots.map(({ id }) => id));
  return shots.flatMap((shot) => {
    const starts = [shot.start, ...borders.filter((border) => border > shot.start && border < shot.end)];
    return starts.map((start, i): Shot => {
      const end = starts[i + 1] ?? shot.end;
      if (i === 0) return { ...shot, end };
      const id = shotId(filmId, start, taken);
      taken.add(id);
      return freshShot(id, { start, end }, hardTransition(start, "cut"));
    });
  });
}

/** The part of a shot's picture that is its clip's, without the bars around the clip. */
function activeWithin(known: Box | null, area: Box, picture: Size): Box | null {
  const both = boxIntersection(known ?? area, area);
  const active = Math.min(both.width, both.height) < LEAST_ACTIVE_SIDE ? area : both;
  return boxContains(active, wholeOf(picture)) ? null : active;
}

/**
 * The state of a film after its clips were rearranged.
 * @param taken films that have become clips of it, with their work
 */
export function arrangedState(
  state: FilmState,
  to: Arrangement,
  tracking: Omit<Tracking, "rename">,
  taken: readonly TakenFilm[] = [],
): FilmState {
  const { info, clips, parts, known, ratio } = to;
  const { frames, picture } = info;
  const facts: FilmFacts = {
    id: state.film.id,
    frames,
    picture,
    clock: clockOfFilm(info),
    candidates: [],
    analysed: false,
  };
  const move = new Move(known, ratio, state.film.picture, picture);
  const rename = (trackId: string) => movedTrackId(trackId, move);
  const moved = moveWork(state, facts, parts, ratio, { ...tracking, rename });
  const split = { ...moved, shots: splitAtBorders(moved.shots, state.film.id, clipBorders(clips)) };
  const whole = taken.reduce(withWorkOf, split);
  const shots = whole.shots.map((shot) => {
    const clip = clips.find((range) => inRange(shot.start, range))!;
    return { ...shot, active: activeWithin(shot.active, clip.area, picture) };
  });
  return { ...whole, shots, clips: clips.map((clip) => ({ ...clip, picture: clip.info.picture })) };
}
