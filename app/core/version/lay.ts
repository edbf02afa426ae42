/** The content of a version: its paths, what lies above its picture, and its sound. For the app and the command line. */
import type { Caption } from "../captions/caption";
import { withCaptions } from "../captions/captioned";
import type { ShownAt } from "../composition/composition";
import { type HeardIn, heardIn } from "../composition/heard";
import { shownIn, withLayers } from "../composition/shown";
import type { FilmInfo } from "../film/film-info";
import type { Size } from "../geometry/box";
import type { FramedShot } from "../path/shot-framing";
import { frameShots } from "../path/version-paths";
import type { Track } from "../subjects/tracking/track";
import { type FrameRange, framesPerSecond } from "../time/rate";
import { joinRanges } from "../time/ranges";
import type { Version } from "./film-state";
import { shotFraming, type ShotSettings } from "./shot-settings";

/** A shot of a version with its path. */
export interface LaidShot extends FramedShot {
  range: FrameRange;
  set: ShotSettings;
  tracks: readonly Track[];
}

/** A version whose paths are laid. */
export interface LaidVersion {
  film: Pick<FilmInfo, "picture" | "rate">;
  /** Size of the version. */
  target: Size;
  shots: readonly LaidShot[];
  /** The ranges of the film that it shows, in order and disjoint. */
  ranges: readonly FrameRange[];
  /** What it shows at each frame, without its layers. */
  bare: ShownAt;
}

/**
 * Lays a version's paths.
 * @param sets settings of each of the film's shots
 * @param tracks found in each
 */
export function lay(
  film: LaidVersion["film"],
  { width, height }: Size,
  sets: readonly ShotSettings[],
  tracks: readonly (readonly Track[])[],
): LaidVersion {
  const target = { width, height };
  const framings = sets.map((set, i) => shotFraming(set, tracks[i]!));
  const framed = frameShots(framings, film.picture, target, film.rate);
  const shots = sets.map((set, i): LaidShot => {
    const { start, end } = set.shot;
    return { range: { start, end }, set, tracks: tracks[i]!, ...framed[i]! };
  });
  return {
    film,
    target,
    shots,
    ranges: joinRanges(sets.flatMap(({ kept }) => kept)),
    bare: shownIn(shots, target, framesPerSecond(film.rate)),
  };
}

/** Layers and safe area of a version, with its captions. */
export type Above = Pick<Version, "layers" | "safeArea"> & {
  /** How it shows the film's captions. */
  captions: Version["captions"];
};

/**
 * What a version shows with its layers, and with its captions where they are burnt in.
 * @param captions of its film
 * @param places of the captions in the safe area, where known
 */
export function withAbove(
  {
    film,
    target,
    shots,
    ranges,
    bare,
  }: Omit<LaidVersion, "shots"> & { shots: readonly Pick<LaidShot, "range" | "tracks">[] },
  { layers, safeArea, captions: settings }: Above,
  captions: readonly Caption[],
  places?: ReadonlyMap<string, number>,
): ShownAt {
  const fps = framesPerSecond(film.rate);
  const captioned = {
    captions,
    settings,
    layers,
    safeArea,
    size: target,
    shown: bare,
    fps,
    shots: shots.map(({ range, tracks }) => ({ ...range, tracks })),
  };
  const all = withCaptions(captioned, places);
  return withLayers(bare, { layers: all, safeArea, size: target, kept: ranges, fps });
}

/** What is rendered of a version, beside the film's file and its encoding. */
export interface RenderedVersion {
  target: Size;
  ranges: readonly FrameRange[];
  shown: ShownAt;
  /** First frames of shots. */
  cuts: number[];
  /** Null where only the film is heard. */
  heard: HeardIn[] | null;
}

/** What is rendered of a version whose paths are laid. */
export function toRender(laid: LaidVersion, above: Above, captions: readonly Caption[]): RenderedVersion {
  const { film, target, shots, ranges } = laid;
  return {
    target,
    ranges,
    shown: withAbove(laid, above, captions),
    cuts: shots.map(({ range }) => range.start),
    heard: heardIn(shots, ranges, framesPerSecond(film.rate)),
  };
}
