import type { Composition } from "~/core/composition/composition";
import type { Size } from "~/core/geometry/box";
import { seekSeconds } from "~/core/time/rate";
import { drawComposition } from "./draw-composition";
import { type LightCopy, PieceStream } from "../model/piece-stream";

const nextPaint = () => new Promise((resolve) => requestAnimationFrame(resolve));

/** Draws single frames of a film with a video element of its own, one at a time. */
export class FrameGrabber {
  disposed = false;
  private readonly video = document.createElement("video");
  private readonly loaded: Promise<unknown>;
  private readonly stream: PieceStream;

  constructor(private readonly source: LightCopy) {
    this.video.muted = true;
    this.video.preload = "auto";
    this.loaded = new Promise((resolve) => this.video.addEventListener("loadeddata", resolve, { once: true }));
    this.stream = new PieceStream(this.video, source, {}, 0);
  }

  /**
   * Draws the composition of a frame over a whole canvas.
   * @throws Error if the grabber is disposed before the frame has loaded
   */
  async draw(frame: number, canvas: HTMLCanvasElement, picture: Size, shown: Composition): Promise<void> {
    await this.loaded;
    await new Promise<void>((resolve) => {
      this.video.addEventListener("seeked", () => resolve(), { once: true });
      this.video.currentTime = seekSeconds(frame, this.source.rate);
    });
    // The event may fire before the new picture can be drawn; drawing then would give the one before.
    await nextPaint();
    await nextPaint();
    if (this.disposed) throw new Error("let go");
    drawComposition(canvas, this.video, shown, picture);
  }

  dispose(): void {
    this.disposed = true;
    this.stream.dispose();
  }
}
