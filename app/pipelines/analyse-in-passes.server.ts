import { gapsIn, isReached, nextGap } from "~/core/analysis/passes";
import type { TransitionCandidate } from "~/core/shots/detect-transitions";
import { hardTransition } from "~/core/shots/transition";
import { type FrameRange, framesIn, framesPerSecond, inRange } from "~/core/time/rate";
import { joinRanges, liesWithin } from "~/core/time/ranges";
import type { FilmFile } from "~/media/film-file";
import { ActiveAreas } from "./active-areas.server";
import { analyseFilm } from "./analyse-film.server";
import type { AnalysisStore } from "./analysis-store";
import { findCutBefore } from "./find-cut-before.server";

/** Seconds of film that are worth waiting for before the analysis moves elsewhere. */
const SOON_SECONDS = 20;

/** Stores findings, and where in the film the analysis is. */
export interface PassStore extends AnalysisStore {
  /** The finished ranges. */
  analysed(): FrameRange[];
  /** The frame that somebody waits for; null if nobody does. */
  wanted(): number | null;
  /** The last pass, finished or not; null if there is none. */
  pass(): FrameRange | null;
  /**
   * Begins a pass, and abandons the rest of another.
   * @param begins the cut at its start; null at the film's first frame, or where it resumes
   */
  beginPass(pass: FrameRange, begins: TransitionCandidate | null): void;
}

export interface PassesOptions {
  store: PassStore;
  /** Frames at which the film certainly begins anew, in order. */
  borders?: readonly number[];
  /** 0 to 1 */
  onProgress?: (share: number) => void;
  signal?: AbortSignal;
}

interface Pass {
  range: FrameRange;
  begins: TransitionCandidate | null;
}

/** Analyses a film in the order in which it is waited for. */
class Passes {
  private readonly areas: ActiveAreas;
  private readonly soonFrames: number;
  /** The frame for which the pass was chosen or confirmed. */
  private chosenFor: number | null = null;
  private next: Pass | null = null;

  constructor(
    private readonly film: FilmFile,
    private readonly options: PassesOptions,
  ) {
    this.areas = new ActiveAreas(film, options.signal);
    this.soonFrames = Math.round(SOON_SECONDS * framesPerSecond(film.info.rate));
  }

  async run(): Promise<void> {
    const { store, onProgress, signal } = this.options;
    let pass = this.interrupted();
    for (; ; pass = null) {
      if (!pass) {
        pass = this.next ?? (await this.choose(store.wanted()));
        this.next = null;
        if (!pass) return;
        store.beginPass(pass.range, pass.begins);
      }
      const { range } = pass;
      const elsewhere = framesIn(joinRanges(store.analysed())) - framesIn(this.doneIn(range));
      const report = (share: number) =>
        onProgress?.((elsewhere + share * (range.end - range.start)) / this.film.info.frames);
      const goesOn = (left: FrameRange, watchedTo: number) => this.goesOn(left, watchedTo);
      await analyseFilm(this.film, { store, range, goesOn, areas: this.areas, onProgress: report, signal });
    }
  }

  /** An unfinished pass; null if there is none. */
  private interrupted(): Pass | null {
    const range = this.options.store.pass();
    if (!range || liesWithin([range], this.options.store.analysed())) return null;
    return { range, begins: null };
  }

  private doneIn({ start, end }: FrameRange): FrameRange[] {
    return joinRanges(this.options.store.analysed().filter((done) => done.start >= start && done.end <= end));
  }

  /** The pass that leads to a frame; null if everything is done. */
  private async choose(wanted: number | null): Promise<Pass | null> {
    const { store, borders = [], signal } = this.options;
    const gap = nextGap(gapsIn(this.film.info.frames, store.analysed(), borders), wanted);
    this.chosenFor = wanted;
    if (!gap) return null;
    const isFar = wanted !== null && inRange(wanted, gap) && wanted - gap.start > this.soonFrames;
    const begins = isFar ? await findCutBefore(this.film, gap, wanted, await this.areas.inFilm(), signal) : null;
    if (begins) return { range: { start: begins.transition.frame, end: gap.end }, begins };
    const border = borders.includes(gap.start);
    return { range: gap, begins: border ? { transition: hardTransition(gap.start, "cut"), strength: 1 } : null };
  }

  /** Whether to continue, or somebody waits for a frame that another pass reaches sooner. */
  private async goesOn(left: FrameRange, watchedTo: number): Promise<boolean> {
    const { store } = this.options;
    const wanted = store.wanted();
    if (wanted === null || wanted === this.chosenFor) return true;
    const soonTo = watchedTo + this.soonFrames;
    if (isReached(wanted, store.analysed(), left, soonTo)) return true;
    const other = await this.choose(wanted);
    // The present pass may be on the way there.
    if (!other || (inRange(other.range.start, left) && other.range.start <= soonTo)) return true;
    this.next = other;
    return false;
  }
}

/**
 * Finds the shots of a film and their tracks, as `analyseFilm` does, beginning with what somebody waits for. Every pass
 * begins with a hard cut, so that the findings do not depend on the order.
 * @throws FilmError if the film cannot be decoded to its end; CancelledError if the signal is aborted
 */
export const analyseInPasses = (film: FilmFile, options: PassesOptions): Promise<void> =>
  new Passes(film, options).run();
