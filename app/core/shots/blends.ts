import type { FrameRange } from "../time/rate";
import { type BlendFit, fitMixture, fitSweep } from "./blend-models";
import { cellSeries, compareLuma, squaredDistance } from "./cell-series";
import type { FrameFeatures } from "./frame-features";
import type { PictureMatcher } from "./picture-match";
import { strengthOf } from "./strength";

/** A range in which one picture may gradually become another. */
export interface BlendEvidence {
  kind: "dissolve" | "wipe";
  /** The frame at which the new picture takes over. */
  frame: number;
  range: FrameRange;
  /** 0 to 1; 0.5 where a blend is as likely as not. */
  strength: number;
}

/** Evidence with the range between barriers in which it lies. */
type BoundedEvidence = BlendEvidence & { bounds: FrameRange };

/** Lengths of the ranges that are tried, in seconds; shorter and longer blends show in the nearest. */
const LENGTHS_SECONDS = [0.25, 0.4, 0.6, 0.9, 1.3, 1.9];
const SHORTEST_FRAMES = 5;
/** Root mean square difference of the cells (0 to 255) below which two pictures count as the same … */
const LEAST_DIFFERENCE = 6;
/** … and the same as a share of their contrast: different pictures differ by all of it, moved ones by less. */
const LEAST_RELATIVE_DIFFERENCE = 0.6;
/** Correlation of the cells' luma above which one picture is the other in different light. */
const SAME_PLACE = 0.8;
/** Largest steps of a blend from frame to frame, backwards and forwards. */
const STEPS = { back: -0.08, ahead: 0.45 };
/** Shares of the later picture between which a blend is under way. */
const UNDER_WAY = { from: 0.04, to: 0.96 };
/** Share of the later picture that must be new; less is a change of light. */
const LEAST_UNLIKE = 0.25;
/** A picture that returns within this time was covered by something passing, and did not blend. */
const RETURN_SECONDS = 1.6;
/** A picture has returned when no more than this share of the largest novelty is new. */
const COME_BACK = 0.6;
/** An even mixture leaves the sweep a residual of 1/√12 = 0.29; far less means that the picture changed at once. */
const LEAST_SWEEP = 0.17;
/**
 * Evidence for a dissolve at which it is as likely as not: how much better the mixture fits than a sweep, times how
 * different the pictures are.
 */
const EVEN_DISSOLVE = 0.2;
/** The same for a wipe: how well its times of change fit a front, above this fit, times how different the pictures are. */
const EVEN_WIPE = 0.25;
const LEAST_FRONT = 0.4;
/** Spread that these times need, and largest residual. */
const LEAST_SPREAD = 0.13;
const LARGEST_SWEEP = 0.36;
/** A wipe changes the whole picture: the difference covers more than this share of it. */
const LEAST_EXTENT = 0.3;
/** A wipe brings in this many times as much as is new beside it, where the picture only moves … */
const BROUGHT_IN = 1.2;
/** … over at most this many frames. */
const BESIDE_FRAMES = 12;

const isGradualRise = (shares: Float64Array): boolean =>
  shares.every((share, i) => {
    const step = i === 0 ? 0 : share - shares[i - 1]!;
    return step >= STEPS.back && step <= STEPS.ahead;
  });

/** Weighs dissolves and wipes in the ranges between hard cuts and fades. */
export class BlendWeigher {
  private readonly series: Float32Array[];

  constructor(
    features: readonly FrameFeatures[],
    private readonly fps: number,
    private readonly matcher: PictureMatcher,
  ) {
    this.series = cellSeries(features);
  }

  /**
   * The strongest blends that do not overlap, in order.
   * @param barriers frames that no blend may straddle, in order: hard cuts, and all frames of fades
   */
  weigh(barriers: readonly number[]): BlendEvidence[] {
    const found: BoundedEvidence[] = [];
    for (const seconds of LENGTHS_SECONDS) {
      const length = Math.max(SHORTEST_FRAMES, Math.round(seconds * this.fps));
      const hop = Math.max(1, Math.floor(length / 8));
      let barrier = 0;
      for (let start = 0; start + length < this.series.length; start += hop) {
        while (barrier < barriers.length && barriers[barrier]! <= start) barrier++;
        if (barriers[barrier] !== undefined && barriers[barrier]! <= start + length) continue;
        const bounds = { start: barriers[barrier - 1] ?? 0, end: (barriers[barrier] ?? this.series.length) - 1 };
        const evidence = this.weighStretch(start, start + length, bounds);
        if (evidence) found.push(evidence);
      }
    }
    // Of overlapping ranges, the one that explains most wins: a part of a blend explains less of the difference.
    const explains = ({ range, strength }: BlendEvidence) => strength * this.difference(range.start - 1, range.end);
    const best: BlendEvidence[] = [];
    for (const evidence of found.sort((a, b) => explains(b) - explains(a))) {
      const free = best.every(({ range }) => range.end <= evidence.range.start || range.start >= evidence.range.end);
      if (!free || this.comesBack(evidence.range.start - 1, evidence.range.end, evidence.bounds)) continue;
      if (evidence.kind === "wipe" && !this.bringsIn(evidence)) continue;
      best.push(evidence);
    }
    return best.sort((a, b) => a.frame - b.frame);
  }

  private difference(a: number, b: number): number {
    return Math.sqrt(squaredDistance(this.series[a]!, this.series[b]!) / this.series[a]!.length);
  }

  /** Whether two frames differ enough for one to have become the other. */
  private differ(a: number, b: number): boolean {
    const difference = this.difference(a, b);
    if (difference < LEAST_DIFFERENCE) return false;
    const { contrast, correlation } = compareLuma(this.series[a]!, this.series[b]!);
    return correlation < SAME_PLACE && difference > LEAST_RELATIVE_DIFFERENCE * contrast;
  }

  /** The part of a range in which the blend is under way, with a frame of each pure picture at its ends. */
  private tighten(start: number, { shares }: BlendFit): { start: number; end: number } {
    const first = shares.findIndex((share) => share > UNDER_WAY.from);
    const last = shares.findLastIndex((share) => share < UNDER_WAY.to);
    return { start: start + Math.max(0, first - 1), end: start + Math.min(shares.length - 1, last + 1) };
  }

  private weighStretch(from: number, to: number, bounds: FrameRange): BoundedEvidence | null {
    if (!this.differ(from, to)) return null;
    const { start, end } = this.tighten(from, fitMixture(this.series, from, to));
    if (end - start < SHORTEST_FRAMES || !this.differ(start, end)) return null;
    const mixture = fitMixture(this.series, start, end);
    if (!isGradualRise(mixture.shares)) return null;
    const sweep = fitSweep(this.series, start, end);
    const unlike = this.matcher.match(start, end).unexplained;
    const wipe =
      sweep.extent >= LEAST_EXTENT &&
      sweep.spread >= LEAST_SPREAD &&
      sweep.residual <= Math.min(LARGEST_SWEEP, 0.85 * mixture.residual)
        ? strengthOf(((sweep.front - LEAST_FRONT) / (1 - LEAST_FRONT)) * unlike, EVEN_WIPE)
        : 0;
    const dissolve =
      sweep.residual >= LEAST_SWEEP ? strengthOf((1 - mixture.residual / sweep.residual) * unlike, EVEN_DISSOLVE) : 0;
    const strength = Math.max(wipe, dissolve);
    if (strength < 0.2 || unlike < LEAST_UNLIKE) return null;
    const fit = wipe > dissolve ? sweep : mixture;
    const half = fit.shares.findIndex((share) => share >= 0.5);
    return {
      kind: wipe > dissolve ? "wipe" : "dissolve",
      frame: start + Math.max(1, half),
      range: { start: start + 1, end },
      strength,
      bounds,
    };
  }

  /** Share of the picture that is new from frame to frame, averaged over a range. */
  private newness(start: number, end: number): number {
    let sum = 0;
    for (let frame = start + 1; frame <= end; frame++) sum += this.matcher.match(frame - 1, frame).unexplained;
    return sum / Math.max(1, end - start);
  }

  /** Whether more enters the picture in a range than beside it, where it only moves or something passes. */
  private bringsIn({ range, bounds }: BoundedEvidence): boolean {
    const [start, end] = [range.start - 1, range.end];
    const reach = Math.min(end - start, BESIDE_FRAMES);
    const before = this.newness(Math.max(bounds.start, start - reach), start);
    const after = this.newness(end, Math.min(bounds.end, end + reach));
    return this.newness(start, end) > BROUGHT_IN * Math.max(before, after);
  }

  /** Correlation of two frames in place, which ignores small things and people who have moved. */
  private likeness(a: number, b: number): number {
    return compareLuma(this.series[a]!, this.series[b]!).correlation;
  }

  /** Whether the picture before returns soon after, or the one after was there before. */
  private comesBack(start: number, end: number, bounds: FrameRange): boolean {
    // Something passing in front of the lens hides more and more, and then less: little of the largest novelty remains.
    const most = { after: this.matcher.match(start, end).unexplained, before: 0 };
    most.before = most.after;
    const likeness = Math.max(0.4, this.likeness(start, end));
    const reach = Math.round(RETURN_SECONDS * this.fps);
    const step = Math.max(1, Math.round(reach / 12));
    for (let k = step; k <= reach; k += step) {
      const after = Math.min(bounds.end, end + k);
      const before = Math.max(bounds.start, start - k);
      const again = this.matcher.match(start, after).unexplained;
      const earlier = this.matcher.match(before, end).unexplained;
      if (again < COME_BACK * most.after || earlier < COME_BACK * most.before) return true;
      most.after = Math.max(most.after, again);
      most.before = Math.max(most.before, earlier);
      if (Math.max(this.likeness(start, after), this.likeness(before, end)) > likeness + 0.3) return true;
    }
    return false;
  }
}
