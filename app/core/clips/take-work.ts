/** Keeps the work on a film when the film becomes a clip of another. */
import type { FilmState, VersionState } from "../version/film-state";
import { byFrame, byThing } from "../edits/difference";
import { withRules } from "../version/settle";
import { moveWork, type Tracking } from "../edits/move-work";
import { wholeOf } from "../geometry/box";
import { shotId } from "../shots/reshape";
import type { Shot } from "../shots/shot";
import { framesPerSecond, inRange } from "../time/rate";
import type { ClipWithFile } from "./clip";

/** A film that has become a clip. */
export interface TakenFilm {
  clip: ClipWithFile;
  state: FilmState;
  /** How subjects are tracked further; its tracks are found anew. */
  tracking: Omit<Tracking, "rename">;
}

/** The version of a film that has the size of another film's. */
const alike = (state: FilmState, { width, height }: VersionState): VersionState | undefined =>
  state.versions.find((version) => version.width === width && version.height === height);

/**
 * The state of a film, with the work on another one in place of the clip that it has become: its shots with their settings,
 * its marks, and in versions of the same size its hand keys.
 * @param into has that clip, without settings on it
 */
export function withWorkOf(into: FilmState, { clip, state, tracking }: TakenFilm): FilmState {
  const place = { start: clip.start, end: clip.end };
  const part = {
    from: { start: 0, end: state.film.frames },
    to: place,
    shift: clip.start,
    areas: { from: wholeOf(state.film.picture), to: clip.area },
  };
  const ratio = framesPerSecond(into.film.clock.rate) / framesPerSecond(state.film.clock.rate);
  const moved = moveWork(state, into.film, [part], ratio, { ...tracking, rename: () => null });
  const others = into.shots.filter((shot) => !inRange(shot.start, place));
  const taken = new Set(others.map(({ id }) => id));
  const ids = new Map<string, string>();
  const shots = moved.shots
    .filter((shot) => inRange(shot.start, place))
    .map((shot): Shot => {
      const id = shotId(into.film.id, shot.start, taken);
      taken.add(id);
      ids.set(shot.id, id);
      // People recognised in one film are unknown in another.
      return { ...shot, id, follow: shot.follow.kind === "person" ? { kind: "auto" } : shot.follow };
    });
  const versions = into.versions.map((version): VersionState => {
    const like = alike(moved, version);
    if (!like) return version;
    const says = [...like.shots].flatMap(([id, said]) => {
      const renamed = ids.get(id);
      const { mustHave: _, ...ofAny } = withRules(said, (rule) => (rule.kind === "person" ? null : rule));
      return renamed ? [[renamed, ofAny] as const] : [];
    });
    return {
      ...version,
      shots: new Map([...version.shots, ...says]),
      handKeys: [...version.handKeys, ...like.handKeys].sort(byFrame),
    };
  });
  return {
    ...into,
    shots: [...others, ...shots].sort((a, b) => a.start - b.start),
    versions,
    marks: [...into.marks, ...moved.marks].sort(byThing),
  };
}
