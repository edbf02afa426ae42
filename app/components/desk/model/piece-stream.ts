import { pieceAt, pieceCount, pieceRange } from "~/core/time/pieces";
import { frameToSeconds, type Rate, seekSeconds } from "~/core/time/rate";

/** A film's proxy, which the server delivers in pieces. */
export interface LightCopy {
  /** Address of a piece. */
  pieceUrl: (piece: number) => string;
  rate: Rate;
  frames: number;
  hasSound: boolean;
}

/** Pieces loaded ahead of the playhead, and kept around it. */
const AHEAD = 3;
const KEPT = 12;
/** Milliseconds until a failed piece is requested again. */
const TRY_AGAIN_MS = 1500;

const VIDEO = "avc1.64001f";
const SOUND = "flac";

export interface StreamListener {
  /** Called when the picture at the playhead is missing, and when it has loaded. */
  onWaiting?: (waiting: boolean) => void;
  /** Called with the server's message about a piece that it cannot make. */
  onFailed?: (message: string) => void;
}

/**
 * Feeds a video element with the pieces of a film's proxy around the playhead, each at its own place in the film's time
 * (Media Source Extensions). The server makes a missing piece when it is requested.
 */
export class PieceStream {
  private readonly source = new MediaSource();
  private readonly url = URL.createObjectURL(this.source);
  private readonly disposal = new AbortController();
  private readonly there = new Set<number>();
  private buffer: SourceBuffer | null = null;
  private loading: { piece: number; controller: AbortController } | null = null;
  private waiting = false;
  /** The last change to the buffer, which takes one change at a time. */
  private changed: Promise<void> = Promise.resolve();

  constructor(
    private readonly video: HTMLVideoElement,
    private readonly copy: LightCopy,
    private readonly listener: StreamListener = {},
    private readonly ahead = AHEAD,
  ) {
    const { signal } = this.disposal;
    this.source.addEventListener("sourceopen", () => this.open(), { once: true, signal });
    for (const event of ["seeking", "seeked", "timeupdate", "waiting", "loadeddata", "canplay"]) {
      video.addEventListener(event, () => this.look(), { signal });
    }
    video.src = this.url;
  }

  private open(): void {
    const { rate, frames, hasSound } = this.copy;
    this.source.duration = frameToSeconds(frames, rate);
    this.buffer = this.source.addSourceBuffer(`video/mp4; codecs="${hasSound ? `${VIDEO},${SOUND}` : VIDEO}"`);
    this.look();
  }

  private get playhead(): number {
    const { rate, frames } = this.copy;
    // Seeks go to the middle of a frame, playing stops at the end of the last.
    const frame = Math.floor((this.video.currentTime * rate.num) / rate.den + 1e-6);
    return pieceAt(Math.min(frames - 1, frame), rate);
  }

  /** The first missing piece from the playhead on, if it is wanted. */
  private wanted(): number | null {
    const here = this.playhead;
    const end = Math.min(pieceCount(this.copy), here + 1 + this.ahead);
    for (let piece = here; piece < end; piece++) if (!this.there.has(piece)) return piece;
    return null;
  }

  /** Requests the piece that is needed most. */
  private look(): void {
    if (!this.buffer || this.disposal.signal.aborted) return;
    const here = this.playhead;
    const isWaiting = !this.there.has(here);
    if (isWaiting !== this.waiting) this.listener.onWaiting?.((this.waiting = isWaiting));
    const wanted = this.wanted();
    // A piece under way is waited for unless the playhead has moved elsewhere.
    if (this.loading && (this.loading.piece === wanted || !isWaiting)) return;
    this.loading?.controller.abort();
    this.loading = null;
    if (wanted !== null) void this.load(wanted);
  }

  private async load(piece: number): Promise<void> {
    const loading = { piece, controller: new AbortController() };
    this.loading = loading;
    const { signal } = loading.controller;
    try {
      const response = await fetch(this.copy.pieceUrl(piece), { signal });
      if (response.status === 422 || response.status === 507) this.listener.onFailed?.(await response.text());
      if (!response.ok) throw new Error(`piece ${piece} was not sent`);
      const data = await response.arrayBuffer();
      if (signal.aborted) return;
      await this.append(piece, data);
      this.there.add(piece);
      await this.forget();
    } catch {
      if (signal.aborted) return;
      await new Promise((resolve) => setTimeout(resolve, TRY_AGAIN_MS));
    }
    if (this.loading !== loading) return;
    this.loading = null;
    this.look();
  }

  private async append(piece: number, data: ArrayBuffer): Promise<void> {
    const buffer = this.buffer!;
    await this.change(() => {
      buffer.timestampOffset = frameToSeconds(pieceRange(piece, this.copy).start, this.copy.rate);
      buffer.appendBuffer(data);
    });
    // Tells the player that nothing follows the last frame.
    if (piece === pieceCount(this.copy) - 1 && this.source.readyState === "open") this.source.endOfStream();
  }

  /** Removes pieces far from the playhead. */
  private async forget(): Promise<void> {
    const { rate } = this.copy;
    for (const piece of this.there) {
      if (Math.abs(piece - this.playhead) <= KEPT) continue;
      this.there.delete(piece);
      const { start, end } = pieceRange(piece, this.copy);
      // Up to within its last frame: removing more would remove the key frame of the next piece as well.
      const [from, to] = [frameToSeconds(start, rate), seekSeconds(end - 1, rate)];
      await this.change(() => this.buffer!.remove(from, to));
    }
  }

  /** Changes the buffer after the changes before, and waits until that is done. */
  private change(make: () => void): Promise<void> {
    const buffer = this.buffer!;
    const { signal } = this.disposal;
    const made = this.changed.then(
      () =>
        new Promise<void>((resolve, reject) => {
          buffer.addEventListener("error", () => reject(new Error("the piece cannot be played")), { signal });
          buffer.addEventListener("updateend", () => resolve(), { once: true, signal });
          make();
        }),
    );
    this.changed = made.catch(() => {});
    return made;
  }

  dispose(): void {
    this.disposal.abort();
    this.loading?.controller.abort();
    URL.revokeObjectURL(this.url);
    this.video.removeAttribute("src");
    this.video.load();
  }
}
