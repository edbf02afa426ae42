/** Frames a version's shots while its film is edited: changes are taken in, and only what depends on them is done again. */
import type { CheckLimits } from "../checks/check-settings";
import { shownIn } from "../composition/shown";
import type { Size } from "../geometry/box";
import type { FramedShot, ShotFraming } from "../path/shot-framing";
import { followedTrack } from "../path/solve-version";
import { VersionPaths } from "../path/version-paths";
import { PerKey } from "../basics/per-key";
import type { TrackOpinions } from "../subjects/tracking/shot-tracks";
import type { TrackStock } from "../subjects/tracking/track-stock";
import { tellingFrame } from "../subjects/choosing/telling-frame";
import type { Track } from "../subjects/tracking/track";
import { type FrameRange, framesPerSecond, type Rate } from "../time/rate";
import { type FramingFlags, flagsOfFraming } from "./flags-of-framing";
import { basisOf, shotFraming, type ShotSettings } from "./shot-settings";

/** What a version's paths are laid in. */
export interface FramerGround {
  picture: Size;
  rate: Rate;
  /** Size of the version. */
  target: Size;
  /** Limits of its checks. */
  limits: CheckLimits;
}

/** What is known of the film beside its tracks, which changes during analysis and editing. */
export interface FramerNews {
  opinions: TrackOpinions;
  /** Ranges that were analysed as one shot each, by start, the longer of two first. */
  analysed: readonly FrameRange[];
}

/** The framing of a shot, and what follows from it. */
export interface ShotResult extends FramingFlags {
  framed: FramedShot;
  /** The frame that represents it best. */
  tellingFrame: number;
}

export type FramerAnswer = { id: string; result: ShotResult } | { id: string; error: unknown };

export class VersionFramer {
  private readonly framings = new PerKey<ShotFraming>();
  private readonly paths: VersionPaths;
  private shots: readonly ShotSettings[] = [];
  private readonly tracks = new Map<string, readonly Track[] | null>();

  /** @param stock the tracks loaded so far; `take` reads it again */
  constructor(
    private readonly ground: FramerGround,
    private readonly stock: TrackStock,
  ) {
    this.paths = new VersionPaths(ground.picture, ground.target, ground.rate);
  }

  /** Takes the present settings and findings. Identical settings count as unchanged. */
  take(shots: readonly ShotSettings[], { analysed, opinions }: FramerNews): void {
    this.shots = shots;
    this.tracks.clear();
    this.paths.take(
      shots.map((settings) => {
        const { shot } = settings;
        const tracks = this.stock.of(shot, analysed, opinions);
        this.tracks.set(shot.id, tracks);
        if (!tracks) return { id: shot.id, framing: null };
        const from = [tracks, ...basisOf(settings)];
        return { id: shot.id, framing: this.framings.get(shot.id, from, () => shotFraming(settings, tracks)) };
      }),
    );
  }

  /**
   * Frames one shot that is not up to date; null when all are.
   * @param first ids of shots that are waited for
   */
  next(first: ReadonlySet<string> = new Set()): FramerAnswer | null {
    const solved = this.paths.solveNext(first);
    if (!solved || "error" in solved) return solved;
    return { id: solved.id, result: this.result(solved.id, solved.framed) };
  }

  private result(id: string, framed: FramedShot): ShotResult {
    const { picture, target, rate, limits } = this.ground;
    const set = this.shots.find((settings) => settings.shot.id === id)!;
    const tracks = this.tracks.get(id) ?? [];
    const shown = shownIn([{ range: set.shot, ...framed }], target, framesPerSecond(rate));
    return {
      framed,
      ...flagsOfFraming(set, framed, { tracks, shown, picture, rate, limits }),
      tellingFrame: tellingFrame(set.kept.length > 0 ? set.kept : [set.shot], followedTrack(framed, tracks), shown),
    };
  }
}
