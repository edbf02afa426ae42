/** Frames a version's shots while its film is worked on: what changes is taken in, and only what depends on it is done again. */
import { framingLooks, otherLooks, type SecondLook } from "../checks/second-looks";
import { shownIn } from "../composition/shown";
import type { Size } from "../geometry/box";
import type { FramedShot, ShotFraming } from "../path/shot-framing";
import { followedTrack } from "../path/solve-version";
import { VersionPaths } from "../path/version-paths";
import { PerKey } from "../per-key";
import type { TrackOpinions } from "../subjects/tracking/shot-tracks";
import type { TrackStock } from "../subjects/tracking/track-stock";
import { tellingFrame } from "../subjects/choosing/telling-frame";
import { laidOver, type Track } from "../subjects/tracking/track";
import { type FrameRange, framesPerSecond, type Rate } from "../time/rate";
import { basisOf, settledShot, shotFraming, type ShotSettings } from "./path-inputs";

/** What a version's paths are laid in. */
export interface FramerGround {
  picture: Size;
  rate: Rate;
  /** Size of the version. */
  target: Size;
}

/** What is known of the film, beside its tracks; it changes while the film is analysed and edited. */
export interface FramerNews {
  opinions: TrackOpinions;
  /** Ranges that were analysed as one shot each, by start, the longer of two first. */
  analysed: readonly FrameRange[];
}

/** How a shot is framed, and what follows from that. */
export interface ShotResult {
  framed: FramedShot;
  /** What deserves a second look in it. */
  looks: SecondLook[];
  /** The frame that says most about it. */
  tellingFrame: number;
}

export type FramerAnswer = { id: string; result: ShotResult } | { id: string; error: unknown };

/** What is looked at in each pane by itself; the rest is about all that is shown. */
const OF_A_PANE: ReadonlySet<SecondLook["kind"]> = new Set(["unsure-subject", "subject-lost", "subject-cut"]);

export class VersionFramer {
  private readonly framings = new PerKey<ShotFraming>();
  private readonly paths: VersionPaths;
  private shots: readonly ShotSettings[] = [];
  private readonly tracks = new Map<string, readonly Track[] | null>();

  /** @param stock the tracks that are loaded by now; `take` looks into it again */
  constructor(
    private readonly ground: FramerGround,
    private readonly stock: TrackStock,
  ) {
    this.paths = new VersionPaths(ground.picture, ground.target, ground.rate);
  }

  /** Takes what is set and known as it is now. Settings that are the very same value are taken as unchanged. */
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
   * Frames one shot that is not framed yet as it is now; null when all are.
   *
   * @param first ids of shots that are waited for
   */
  next(first: ReadonlySet<string> = new Set()): FramerAnswer | null {
    const solved = this.paths.solveNext(first);
    if (!solved || "error" in solved) return solved;
    return { id: solved.id, result: this.result(solved.id, solved.framed) };
  }

  private result(id: string, framed: FramedShot): ShotResult {
    const { picture, target, rate } = this.ground;
    const set = this.shots.find((settings) => settings.shot.id === id)!;
    const { shot, kept } = set;
    const { settings, protect } = settledShot(set);
    const tracks = this.tracks.get(id) ?? [];
    const texts = laidOver(tracks);
    const subject = followedTrack(framed, tracks);
    const area = shot.active ?? picture;
    const shown = shownIn([{ range: shot, ...framed }], target, framesPerSecond(rate));
    const isFollowed = (trackId: string) =>
      framed.others.some(({ spans }) => spans.some((span) => span.trackId === trackId));
    const { other } = framed;
    const left = other && !isFollowed(other.trackId) && tracks.find((track) => track.id === other.trackId);
    return {
      framed,
      looks: [
        ...framingLooks({ ...shot, kept, protect, settings, texts }, subject, shown, area, framed.certainty),
        ...(subject && left ? otherLooks(subject, left, other.why) : []),
        ...framed.others.flatMap((pane, i) => {
          if (framed.laidOut.own?.[i + 1]) return [];
          const inPane = { ...shot, kept, protect: null, texts: [], settings };
          const looks = framingLooks(inPane, followedTrack(pane, tracks), shown, area, pane.certainty);
          return looks
            .filter(({ kind }) => OF_A_PANE.has(kind))
            .map((look) => ({ ...look, pane: i + 1, text: `Pane ${i + 2}: ${look.text}` }));
        }),
      ],
      tellingFrame: tellingFrame(kept.length > 0 ? kept : [shot], subject, shown),
    };
  }
}
