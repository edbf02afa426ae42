import { clamped } from "../numbers/clamped";
import { type FrameFeatures, histogramDistance, LUMA_GRID, lumaStatistics } from "./frame-features";
import { PictureChanges } from "./picture-changes";
import type { PictureMatcher } from "./picture-match";
import { strengthOf } from "./strength";

/** A frame at which one picture may have replaced another at once. */
export interface CutEvidence {
  frame: number;
  /** 0 to 1; 0.5 where a cut is as likely as not. */
  strength: number;
  /** Most of the picture stays, and what is in it has jumped. */
  jump: boolean;
}

/** Novelty, in held pictures, above which neither moved into the other, and the same for colours … */
const WHOLLY_UNLIKE = 0.6;
const OTHER_COLOURS = 0.06;
/** … unless this many did within this many seconds: then they come at a rate of their own, and may move by any amount. */
const MOVED_PICTURES = 3;
const MOVED_SECONDS = 0.7;
/** What disappears within this many frames was passing, and no shot. */
const PASSING_FRAMES = 3;
/** What disappears within this many seconds was a flash, if it also changed the brightness. */
const FLASH_SECONDS = 0.2;
/** Change of mean luma, 0 to 255, that counts as brighter or darker. */
const FLASH_LUMA = 12;
/** After a flash the same picture returns: its colours and brightness, with no more novelty than from movement. */
const SAME_COLOURS = 0.15;
const SAME_UNEXPLAINED = 0.3;
/** Novelty below which a frame is not examined further. */
const LEAST_EVIDENCE = 0.04;
/** Evidence, above that of the surroundings, at which a cut is as likely as not. */
const EVEN_CUT = 0.22;
const EVEN_JUMP = 0.18;
/** Least share of the picture that stays in place at a jump cut … */
const JUMP_UNCHANGED = 0.45;
/** … and largest histogram distance of its colours; beyond it the light has changed. */
const STAYING_COLOURS = 0.2;
/** Share of new colours above which it is not the same people in the same place. */
const JUMP_COLOURS = 0.1;
/** A change this many times as large as beside it is attributed to movement only in proportion. */
const FULL_PROMINENCE = 5;
/** Weight of movement around a jump as evidence against it. */
const JUMP_MOVEMENT = 2.5;

/** Least share of a title's change that lies in a band, and largest height of that band in the picture. */
const BAND_CHANGE = 0.9;
const BAND_HEIGHT = 0.25;
/** Change of luma, 0 to 255, above grain. */
const GRAIN = 6;

/**
 * Whether the change lies in a horizontal band, as when a title appears or disappears at once: a person who has jumped is
 * taller.
 */
function changesInBand(before: FrameFeatures, after: FrameFeatures): boolean {
  const { columns, rows } = LUMA_GRID;
  const changes = Array.from({ length: rows }, (_, row) => {
    let sum = 0;
    for (let at = row * columns; at < (row + 1) * columns; at++) {
      sum += Math.max(0, Math.abs(after.luma[at]! - before.luma[at]!) - GRAIN);
    }
    return sum;
  });
  const height = Math.round(BAND_HEIGHT * rows);
  const bands = changes.slice(height - 1).map((_, from) => changes.slice(from, from + height));
  const sumOf = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0);
  return Math.max(...bands.map(sumOf)) >= BAND_CHANGE * sumOf(changes);
}

/** Pairs of frames before and after a cut at some distances, in both directions. */
const pairsAcross = (frame: number, reaches: readonly number[]): [number, number][] =>
  reaches.flatMap((k): [number, number][] => [
    [frame - 1, frame + k],
    [frame - 1 - k, frame],
  ]);

/**
 * Weighs hard cuts in two stages: frames that change the picture more than those beside them are candidates; for these, the
 * later picture is searched for in the earlier one (block matching), and what is not found there counts, less what is not
 * found between the surrounding frames, and only as far as it is still not found some frames later: movement of any speed
 * continues, flashes pass, and changes of light leave the structure as it is.
 */
export class CutWeigher {
  private readonly changes: PictureChanges;

  constructor(
    private readonly features: readonly FrameFeatures[],
    private readonly fps: number,
    private readonly matcher: PictureMatcher,
  ) {
    this.changes = new PictureChanges(features, fps);
  }

  /** All frames with more than a trace of evidence, in order. */
  weigh(): CutEvidence[] {
    const evidence: CutEvidence[] = [];
    for (let frame = 1; frame < this.features.length; frame++) {
      const isSudden = this.changes.isSudden(frame);
      if (!isSudden && !this.changes.isBesidePan(frame)) continue;
      const found = this.weighFrame(frame, isSudden);
      if (found.strength > 0.1) evidence.push(found);
    }
    return evidence;
  }

  /** How different two pictures are, apart from movement, 0 to 1. */
  private unlike(earlier: number, later: number): number {
    const { unexplained, unchanged } = this.matcher.match(earlier, later);
    // Pictures without structure have only their colours to tell them apart; where half of the picture is found in
    // place, other colours are another light.
    const colours = histogramDistance(this.at(earlier), this.at(later));
    return Math.max(unexplained, 0.6 * Math.min(colours, 1 - 2 * unchanged));
  }

  private at(frame: number): FrameFeatures {
    return this.features[clamped(frame, 0, this.features.length - 1)]!;
  }

  /**
   * The pairs of neighbours around a cut, without the one that straddles it, or any that may straddle another: a sudden
   * change next to a cut of a quick montage is no movement. Neighbours of a held picture are the pictures beside it, each
   * wholly new, whatever moves from one to the next.
   */
  private around(frame: number): [number, number][] {
    return this.changes
      .pairsBeside(frame)
      .filter(([, start]) => !this.changes.isSudden(start) || this.isHeldMovement(start));
  }

  /** Whether the sudden change at a frame is a held picture that replaces one from which it moved on. */
  private isHeldMovement(frame: number): boolean {
    return this.changes.isHeld(frame) && (this.hasMoved(frame) || this.isOnward(frame));
  }

  /** Whether the picture that begins at a frame resembles the one before, as far as movement leaves it. */
  private hasMoved(frame: number): boolean {
    const colours = histogramDistance(this.at(frame - 1), this.at(frame));
    return colours < OTHER_COLOURS && this.unlike(frame - 1, frame) < WHOLLY_UNLIKE;
  }

  /** Whether held pictures around a frame have moved one into the other. */
  private isOnward(frame: number): boolean {
    const reach = Math.round(MOVED_SECONDS * this.fps);
    let moved = 0;
    for (let at = Math.max(1, frame - reach); at < Math.min(this.features.length, frame + reach); at++)
      if (this.changes.isSurelyHeld(at) && this.hasMoved(at)) moved++;
    return moved >= MOVED_PICTURES;
  }

  /** The pairs across a cut at increasing distances, in both directions. */
  private across(frame: number): [number, number][] {
    return pairsAcross(
      frame,
      Array.from({ length: PASSING_FRAMES }, (_, k) => k + 1),
    );
  }

  /** Whether a flash began or ended at a frame: it made the picture brighter or darker, and then went back. */
  private isFlash(frame: number): boolean {
    const flash = Math.round(FLASH_SECONDS * this.fps);
    if (flash <= PASSING_FRAMES || this.brightening(frame - 1, frame) < FLASH_LUMA) return false;
    return pairsAcross(frame, [(PASSING_FRAMES + flash) >> 1, flash]).some(([a, b]) => this.isSamePicture(a, b));
  }

  /** Difference of two frames in mean luma. */
  private brightening(earlier: number, later: number): number {
    return Math.abs(lumaStatistics(this.at(later)).mean - lumaStatistics(this.at(earlier)).mean);
  }

  /** Whether two frames show the same picture beyond doubt; a lack of differences is not enough. */
  private isSamePicture(earlier: number, later: number): boolean {
    if (this.brightening(earlier, later) >= FLASH_LUMA) return false;
    if (histogramDistance(this.at(earlier), this.at(later)) > SAME_COLOURS) return false;
    return this.matcher.match(earlier, later).unexplained <= SAME_UNEXPLAINED;
  }

  /**
   * @param mayJump whether most of the picture may stay: beside a pan nothing does, and what looks like it is camera shake
   */
  private weighFrame(frame: number, mayJump: boolean): CutEvidence {
    const here = this.matcher.match(frame - 1, frame);
    const isTitle = here.unchanged >= JUMP_UNCHANGED && changesInBand(this.at(frame - 1), this.at(frame));
    if (isTitle) return { frame, strength: 0, jump: false };
    if (this.unlike(frame - 1, frame) < LEAST_EVIDENCE && here.worst < LEAST_EVIDENCE) {
      return { frame, strength: 0, jump: false };
    }
    const movement = Math.min(1, FULL_PROMINENCE / this.changes.prominence(frame));
    const around = movement * Math.max(0, ...this.around(frame).map(([a, b]) => this.unlike(a, b)));
    const lasting = Math.min(...this.across(frame).map(([a, b]) => this.unlike(a, b)));
    const cut = this.isFlash(frame) ? 0 : Math.min(this.unlike(frame - 1, frame), 1.15 * lasting) - around;
    const colours = histogramDistance(this.at(frame - 1), this.at(frame));
    const stays = mayJump && here.unchanged >= JUMP_UNCHANGED && colours <= STAYING_COLOURS;
    if (!stays) return { frame, strength: strengthOf(cut, EVEN_CUT), jump: false };
    const worst = (pairs: [number, number][]) => pairs.map(([a, b]) => this.matcher.match(a, b).worst);
    const moving = movement * Math.max(0, ...worst(this.around(frame)));
    const jump = Math.min(here.worst, ...worst(this.across(frame))) - JUMP_MOVEMENT * moving;
    const strength = Math.max(strengthOf(jump, EVEN_JUMP), strengthOf(cut, EVEN_CUT));
    return { frame, strength, jump: colours <= JUMP_COLOURS };
  }
}
