import { type FrameRange, framesPerSecond, inRange, mediaTimeToFrame, type Rate, seekSeconds } from "~/core/time/rate";

/** Highest playback rate. */
const MOST_SPEED = 8;

export interface Sound {
  /** 0 to 1. */
  volume: number;
  muted: boolean;
}

/**
 * Plays a film and knows exactly which frame is on screen: the browser reports the media time of each picture it presents
 * (`requestVideoFrameCallback`), playing or paused. Listeners are called in that callback, so that what they draw belongs
 * to the picture under it.
 */
export class Player {
  private shown = 0;
  /** Target of the last seek; steps count from it while its picture is still on its way. */
  private wanted: number | null = null;
  private callback = 0;
  private disposed = false;
  /** Ranges that are played; the rest is skipped. */
  private kept: readonly FrameRange[];
  /** The looped range; null for none. */
  private loop: FrameRange | null = null;
  private sound: Sound = { volume: 1, muted: false };
  /** Whether the film is muted in the present shot. */
  private isShotSilent = false;
  /** Start frame, start time and speed of playing backwards; null otherwise. */
  private backwards: { frame: number; since: number; speed: number; request: number } | null = null;
  private readonly listeners = new Set<() => void>();
  private readonly seekListeners = new Set<() => void>();

  constructor(
    private readonly video: HTMLVideoElement,
    private readonly rate: Rate,
    private readonly frames: number,
  ) {
    this.kept = [{ start: 0, end: frames }];
    video.addEventListener("play", this.notify);
    video.addEventListener("pause", this.notify);
    video.addEventListener("seeked", this.notifySoon);
    video.addEventListener("ended", this.playAgain);
    this.watch();
    // A video that had its first picture before this began does not present it again.
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

  /** While playing, skips from the end of one kept range to the start of the next, so that nothing between them is seen. */
  private passOver(): void {
    const next = this.shown + 1;
    if (this.loop && !inRange(next, this.loop)) return this.seek(this.loop.start);
    if (this.kept.some((range) => inRange(next, range))) return;
    const range = this.kept.find(({ start }) => start > this.shown);
    if (range) return this.seek(range.start);
    this.video.pause();
    // A busy browser skips frames, and shows one more after it was paused.
    const last = this.kept.at(-1);
    if (last) this.seek(last.end - 1);
  }

  /** At the film's end there is no next frame that could trigger skipping. */
  private readonly playAgain = (): void => {
    if (!this.loop) return;
    this.seek(this.loop.start);
    void this.video.play();
  };

  private readonly notify = (): void => {
    for (const listener of this.listeners) listener();
  };

  /**
   * A busy browser reports a picture before it can be drawn, and still gives the one before: listeners of a paused video
   * are called again after it has been painted.
   */
  private readonly notifySoon = (): void => {
    this.notify();
    requestAnimationFrame(() => requestAnimationFrame(this.notify));
  };

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  /** Like `subscribe`, and also called when a frame is sought, before its picture is on screen. */
  readonly subscribeToTarget = (listener: () => void): (() => void) => {
    this.seekListeners.add(listener);
    const unsubscribe = this.subscribe(listener);
    return () => {
      unsubscribe();
      this.seekListeners.delete(listener);
    };
  };

  /** The frame on screen. */
  readonly getFrame = (): number => this.shown;
  /** The frame on screen, or the one being sought. */
  getTarget(): number {
    return this.wanted ?? this.shown;
  }

  readonly getPlaying = (): boolean => !this.video.paused || this.backwards !== null;

  /** Playback rate, negative for backwards; 0 while paused. */
  readonly getSpeed = (): number =>
    this.backwards ? -this.backwards.speed : this.video.paused ? 0 : this.video.playbackRate;

  readonly getLoop = (): FrameRange | null => this.loop;

  /** Loops a range; null ends that. */
  setLoop(range: FrameRange | null): void {
    this.loop = range && { start: range.start, end: range.end };
    this.notify();
  }

  readonly getSound = (): Sound => this.sound;

  setSound(sound: Sound): void {
    this.sound = sound;
    this.hear();
    this.notify();
  }

  /** Says whether the film is muted in the present shot. */
  setShotSilent(isSilent: boolean): void {
    this.isShotSilent = isSilent;
    this.hear();
  }

  private hear(): void {
    this.video.volume = this.sound.volume;
    this.video.muted = this.sound.muted || this.isShotSilent;
  }

  /** Sets the ranges to be played. */
  setKept(kept: readonly FrameRange[]): void {
    this.kept = kept;
  }

  seek(frame: number): void {
    this.wanted = Math.max(0, Math.min(this.frames - 1, Math.round(frame)));
    this.video.currentTime = seekSeconds(this.wanted, this.rate);
    for (const listener of this.seekListeners) listener();
  }

  /** Moves by some frames from where the playhead is or is going to be. */
  step(by: number): void {
    this.pause();
    this.seek(this.getTarget() + by);
  }

  pause(): void {
    this.endBackwards();
    this.video.pause();
  }

  toggle(): void {
    if (this.getPlaying()) return this.pause();
    this.play(1);
  }

  private play(speed: number): void {
    if (!this.kept.some(({ end }) => end > this.shown + 1)) this.seek(this.kept[0]?.start ?? 0);
    this.video.playbackRate = speed;
    void this.video.play();
  }

  /** Plays forwards (1) or backwards (-1), faster with each repeated call. */
  shuttle(direction: -1 | 1): void {
    const speed = this.getSpeed();
    const next = Math.sign(speed) === direction ? Math.min(MOST_SPEED, 2 * Math.abs(speed)) : 1;
    this.pause();
    if (direction > 0) return this.play(next);
    this.backwards = { frame: this.getTarget(), since: performance.now(), speed: next, request: 0 };
    this.goBack();
    this.notify();
  }

  /** Browsers play films forwards only: backwards, frames are sought one after the other, as many as keep up. */
  private readonly goBack = (): void => {
    if (!this.backwards) return;
    const { frame, since, speed } = this.backwards;
    const passed = ((performance.now() - since) / 1000) * framesPerSecond(this.rate) * speed;
    const wanted = Math.max(0, Math.round(frame - passed));
    if (wanted !== this.getTarget() && !this.video.seeking) this.seek(wanted);
    if (wanted === 0) {
      this.endBackwards();
      return this.notify();
    }
    this.backwards.request = requestAnimationFrame(this.goBack);
  };

  private endBackwards(): void {
    if (this.backwards) cancelAnimationFrame(this.backwards.request);
    this.backwards = null;
  }

  dispose(): void {
    this.disposed = true;
    this.endBackwards();
    this.video.cancelVideoFrameCallback(this.callback);
    this.video.removeEventListener("play", this.notify);
    this.video.removeEventListener("pause", this.notify);
    this.video.removeEventListener("seeked", this.notifySoon);
    this.video.removeEventListener("ended", this.playAgain);
    this.video.pause();
  }
}
