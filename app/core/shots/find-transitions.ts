/** Finds transitions during decoding, with only as much of the film in memory as a transition can span. */
import { framesPerSecond, type Rate } from "../time/rate";
import { type TransitionCandidate, weighTransitions } from "./detect-transitions";
import type { FrameFeatures } from "./frame-features";
import { shiftTransition } from "./transition";

/** Seconds that are weighed at a time. */
const STRETCH_SECONDS = 12;
/** Seconds examined beside such a range: the longest gradual transition and its surroundings. */
const MARGIN_SECONDS = 5;

/** The transitions known so far; enough to continue from. */
export interface TransitionsSoFar {
  candidates: TransitionCandidate[];
  /** All candidates before this frame are known. */
  settled: number;
}

export class TransitionFinder {
  readonly candidates: TransitionCandidate[];
  private features: FrameFeatures[] = [];
  /** Frame of the first of the features. */
  private first: number;
  private settledTo: number;
  private readonly stretch: number;
  private readonly margin: number;

  /** @param start the first frame that will be added, unless transitions are known from before */
  constructor(
    private readonly rate: Rate,
    private readonly start: number,
    known?: TransitionsSoFar,
  ) {
    this.stretch = Math.round(STRETCH_SECONDS * framesPerSecond(rate));
    this.margin = Math.round(MARGIN_SECONDS * framesPerSecond(rate));
    this.candidates = [...(known?.candidates ?? [])];
    this.settledTo = known?.settled ?? start;
    this.first = this.needed;
  }

  /** All candidates before this frame are known. */
  get settled(): number {
    return this.settledTo;
  }

  /** The first frame whose features are still needed. */
  get needed(): number {
    return Math.max(this.start, this.settledTo - this.margin);
  }

  /** The frame whose features have to be added next. */
  get next(): number {
    return this.first + this.features.length;
  }

  /** Adds the features of the next frame. */
  add(feature: FrameFeatures): void {
    this.features.push(feature);
    if (this.next >= this.settledTo + this.stretch + this.margin) {
      this.settle(this.settledTo + this.stretch);
    }
  }

  /** Ends the film. */
  end(): void {
    this.settle(this.next);
  }

  private settle(end: number): void {
    for (const { transition, strength } of weighTransitions(this.features, this.rate)) {
      const placed = shiftTransition(transition, this.first);
      if (placed.frame >= this.settledTo && placed.frame < end) this.candidates.push({ transition: placed, strength });
    }
    this.settledTo = end;
    const keepFrom = this.needed;
    this.features = this.features.slice(Math.max(0, keepFrom - this.first));
    this.first = Math.max(this.first, keepFrom);
  }
}
