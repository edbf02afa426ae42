import { clamped } from "~/core/numbers/clamped";
import PQueue from "p-queue";
import type { Box } from "~/core/geometry/box";
import { activeAreaOf, ALIGNED_SHARE, edgeProfile, type EdgeProfile } from "~/core/shots/own-bars";
import {
  commonEdges,
  edgesAround,
  type PlainEdges,
  plainBeyond,
  reachesBeyond,
  sameEdges,
} from "~/core/shots/plain-edges";
import type { FrameDetections } from "~/core/subjects/detecting/detection";
import { type FrameRange, frameToSeconds } from "~/core/time/rate";
import { decodeFrames, type DecodeOptions } from "~/media/decode.server";
import type { FilmFile } from "~/media/film-file";
import { smallFrames } from "~/media/small-frames.server";

/** Frames of a whole film examined at full size: one per this many seconds, within limits. */
const SECONDS_PER_FRAME = 8;
const FRAMES = { least: 6, most: 24 };
/** Frames examined of a shot that differs from the film. */
const FRAMES_OF_SHOT = 6;
/** Distance below which frames are decoded in one go with those between them. */
const NEAR_FRAMES = 20;
/** Frames sought in parallel. */
const AT_A_TIME = 2;

/**
 * Finds the letterbox: for the whole film from some of its frames at full size, and for single shots where the analysis has
 * seen something that does not match.
 */
export class ActiveAreas {
  /** Areas found so far, beginning with the whole film's. */
  private known: (Box | null)[] = [];

  constructor(
    private readonly film: FilmFile,
    private readonly signal?: AbortSignal,
  ) {}

  /**
   * The picture area inside the letterbox of a shot; null if it has none.
   * @param detected in the shot
   */
  async inShot(shot: FrameRange, detected: readonly FrameDetections[]): Promise<Box | null> {
    const usual = await this.inFilm();
    const edges = detected.flatMap(({ plain }) => plain ?? []);
    if (edges.length === 0) return usual;
    const seen = commonEdges(edges);
    const bars = this.edges(usual);
    if (!reachesBeyond(seen, bars) && !plainBeyond(seen, bars)) return usual;
    // A shot that is plain beyond its bars gives no evidence against the usual ones.
    const like = this.known.slice(1).find((area) => sameEdges(seen, this.edges(area)));
    // A shot may also be known to have no bars.
    if (like !== undefined) return like;
    const found = await this.lookAt(shot, FRAMES_OF_SHOT, ALIGNED_SHARE.shot);
    if (!found && !reachesBeyond(seen, bars)) return usual;
    this.known.push(found);
    return found;
  }

  private edges(area: Box | null): PlainEdges {
    const { picture } = this.film.info;
    return edgesAround(area, picture, smallFrames(picture).scale);
  }

  /** The picture area inside the letterbox of the whole film; null if it has none. */
  async inFilm(): Promise<Box | null> {
    const [known] = this.known;
    if (known !== undefined) return known;
    const { frames, rate } = this.film.info;
    const wanted = Math.round(frameToSeconds(frames, rate) / SECONDS_PER_FRAME);
    const count = clamped(wanted, FRAMES.least, FRAMES.most);
    const found = await this.lookAt({ start: 0, end: frames }, count, ALIGNED_SHARE.film);
    this.known = [found];
    return found;
  }

  /** Examines evenly spaced frames of a range for bars. */
  private async lookAt({ start, end }: FrameRange, count: number, alignedShare: number): Promise<Box | null> {
    const { picture } = this.film.info;
    const every = Math.max(1, Math.floor((end - start) / count));
    const first = start + (every >> 1);
    const look = async (options: DecodeOptions): Promise<EdgeProfile[]> => {
      const profiles: EdgeProfile[] = [];
      const decoded = decodeFrames(this.film, { ...options, size: picture, signal: this.signal });
      for await (const data of decoded) profiles.push(edgeProfile(data, picture));
      return profiles;
    };
    // Frames close together are faster to decode in one go than to seek.
    if (every < NEAR_FRAMES)
      return activeAreaOf(await look({ range: { start: first, end }, every }), picture, alignedShare);
    const frames: number[] = [];
    for (let frame = first; frame < end; frame += every) frames.push(frame);
    const sought = await new PQueue({ concurrency: AT_A_TIME }).addAll(
      frames.map((frame) => () => look({ range: { start: frame, end: frame + 1 }, keyPicturesDo: true })),
    );
    return activeAreaOf(sought.flat(), picture, alignedShare);
  }
}
