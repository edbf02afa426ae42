import { type FrameRange, inRange, mediaTimeToFrame, type Rate, seekSeconds } from "~/core/time/rate";

/**
 * Plays a film and knows exactly which frame is on screen: the browser tells the media time of each picture it
 * presents (`requestVideoFrameCallback`), playing or paused. Listeners are called in that very moment, so what
 * they draw belongs to the picture under it.
 */
export class Player {
  private shown = 0;
  /** Where the last seek goes; steps count from here while the picture is still on its way. */
  private wanted: number | null = null;
  private callback = 0;
  private disposed = false;
  /** What is played: the rest is passed over. */
  private kept: readonly FrameRange[];
  private readonly listeners = new Set<() => void>();

  constructor(
    private readonly video: HTMLVideoElement,
    private readonly rate: Rate,
    private readonly frames: number,
  ) {
    this.kept = [{ start: 0, end: frames }];
    video.addEventListener("play", this.notify);
    video.addEventListener("pause", this.notify);
    video.addEventListener("seeked", this.notifySoon);
    this.watch();
    // A video that had its first picture before this began presents no other by itself.
    if (video.readyState >= HTMLMediaElement.HAVE_CURRENT_DATA) this.seek(0);
  }

  private watch(): void {
    this.callback = this.video.requestVideoFrameCallback((_now, { mediaTime }) => {
      this.shown = Math.min(this.frames - 1, mediaTimeToFrame(mediaTime, this.rate));
      if (this.shown === this.wanted || !this.video.paused) this.wanted = null;
      if (!this.video.paused) this.passOver();
      if (this.video.paused) this.notifySoon();
      else this.notify();
      if (!this.disposed) this.watch();
    });
  }

  /** While it plays: on from the end of what is kept to where it is kept again, so that nothing of what lies between is seen. */
  private passOver(): void {
    const next = this.shown + 1;
    if (this.kept.some((range) => inRange(next, range))) return;
    const range = this.kept.find(({ start }) => start > this.shown);
    if (range) return this.seek(range.start);
    this.video.pause();
    // A busy browser leaves frames out, and may be beyond the last one by now.
    const last = this.kept.at(-1);
    if (last && this.shown >= last.end) this.seek(last.end - 1);
  }

  private readonly notify = (): void => {
    for (const listener of this.listeners) listener();
  };

  /**
   * A busy browser tells of a picture before it can be drawn from, and gives the one before until then: who draws from
   * a video that stands still is told again when it has been painted.
   */
  private readonly notifySoon = (): void => {
    this.notify();
    requestAnimationFrame(() => requestAnimationFrame(this.notify));
  };

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  /** The frame on screen. */
  readonly getFrame = (): number => this.shown;
  /** The frame that is on screen or on its way there. */
  getTarget(): number {
    return this.wanted ?? this.shown;
  }

  readonly getPlaying = (): boolean => !this.video.paused;

  /** Says what is to be played from now on. */
  setKept(kept: readonly FrameRange[]): void {
    this.kept = kept;
  }

  seek(frame: number): void {
    this.wanted = Math.max(0, Math.min(this.frames - 1, Math.round(frame)));
    this.video.currentTime = seekSeconds(this.wanted, this.rate);
  }

  /** Moves by so many frames from where the playhead is or is going to be. */
  step(by: number): void {
    this.video.pause();
    this.seek(this.getTarget() + by);
  }

  pause(): void {
    this.video.pause();
  }

  toggle(): void {
    if (!this.video.paused) return this.video.pause();
    if (!this.kept.some(({ end }) => end > this.shown + 1)) this.seek(this.kept[0]?.start ?? 0);
    void this.video.play();
  }

  dispose(): void {
    this.disposed = true;
    this.video.cancelVideoFrameCallback(this.callback);
    this.video.removeEventListener("play", this.notify);
    this.video.removeEventListener("pause", this.notify);
    this.video.removeEventListener("seeked", this.notifySoon);
    this.video.pause();
  }
}
