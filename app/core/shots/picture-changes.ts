import { chromaDistance, type FrameFeatures, lumaDistance } from "./frame-features";

/** A frame is examined more closely when it changes the picture by at least this much (0 to 1) … */
const LEAST_CHANGE = 0.006;
/** … and this many times as much as the frames beside it. */
const PROMINENCE = 2.2;
/** A fast pan that ends or begins with a cut changes the picture nearly as much; the cut must exceed it by this factor. */
const PAN_PROMINENCE = 1.25;
/** A frame that changes less than this, or than this share of the one beside it, repeats the picture before … */
const REPEATED = 0.0015;
const REPEATED_SHARE = 0.04;
/** … and a picture shown for no longer than this is held, as where there are fewer pictures than frames. */
const HELD_SECONDS = 0.17;
/** Least change to a held picture beyond doubt, absolutely and relative to the frames beside it. */
const LEAST_MOVED = 0.002;
const HELD_PROMINENCE = 3;

/** How much a film's picture changes from frame to frame, and which of its pictures are held for several frames. */
export class PictureChanges {
  private readonly changes: number[];
  /** Most frames of a held picture. */
  private readonly longest: number;

  constructor(features: readonly FrameFeatures[], fps: number) {
    this.longest = Math.round(HELD_SECONDS * fps);
    this.changes = features.map((feature, i) => {
      const before = features[i - 1];
      return before ? lumaDistance(before, feature) + chromaDistance(before, feature) : 0;
    });
  }

  /** Difference between a frame and the one before, 0 to 1; 0 beyond the film's ends. */
  at(frame: number): number {
    return this.changes[frame] ?? 0;
  }

  /** Whether the picture changes suddenly at a frame, and not as it does beside it. */
  isSudden(frame: number): boolean {
    return this.at(frame) >= LEAST_CHANGE && this.at(frame) >= PROMINENCE * this.beside(frame).more;
  }

  /** Whether the picture changes at a frame more than on either side, with little movement on one of them. */
  isBesidePan(frame: number): boolean {
    const { less, more } = this.beside(frame);
    const change = this.at(frame);
    return change >= LEAST_CHANGE && change >= PROMINENCE * less && change >= PAN_PROMINENCE * more;
  }

  /** Change at a frame, relative to that where the pictures beside it begin. */
  prominence(frame: number): number {
    const beside = [this.firstOfHeld(frame - 1), this.lastOfHeld(frame) + 1].map((at) => this.at(at));
    return this.at(frame) / Math.max(...beside, 1e-6);
  }

  /** Whether a picture that begins at a frame is held, or the one before was. */
  isHeld(frame: number): boolean {
    return this.firstOfHeld(frame - 1) < frame - 1 || this.lastOfHeld(frame) > frame;
  }

  /** The same beyond doubt: a slowly moving picture may look held here and there. */
  isSurelyHeld(frame: number): boolean {
    const change = this.at(frame);
    return change >= LEAST_MOVED && change >= HELD_PROMINENCE * this.beside(frame).more && this.isHeld(frame);
  }

  /**
   * Pairs of frames: two pictures before the one that begins at a frame and two after it, each with the picture before.
   * Where pictures are held, the last frame of one and the first of the next.
   */
  pairsBeside(frame: number): [number, number][] {
    const before = this.firstOfHeld(frame - 1);
    const after = this.lastOfHeld(frame) + 1;
    const starts = [this.firstOfHeld(before - 1), before, after, this.lastOfHeld(after) + 1];
    return starts.map((start) => [start - 1, start]);
  }

  /** Change at the frames beside one. */
  private beside(frame: number): { less: number; more: number } {
    const [before, after] = [this.at(frame - 1), this.at(frame + 1)];
    return { less: Math.min(before, after), more: Math.max(before, after) };
  }

  private isRepeated(frame: number): boolean {
    const least = Math.max(REPEATED, REPEATED_SHARE * this.beside(frame).more);
    return frame > 0 && frame < this.changes.length && this.at(frame) < least;
  }

  /** The first frame of the picture at a frame, if that is held; else the frame. */
  private firstOfHeld(frame: number): number {
    let first = frame;
    while (this.isRepeated(first)) if (frame - --first >= this.longest) return frame;
    return first;
  }

  /** The last frame of the picture at a frame, if that is held; else the frame. */
  private lastOfHeld(frame: number): number {
    let last = frame;
    while (this.isRepeated(last + 1)) if (++last - frame >= this.longest) return frame;
    return last;
  }
}
