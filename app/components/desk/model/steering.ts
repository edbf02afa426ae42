import type { Point } from "~/core/geometry/box";
import type { CropWindow } from "~/core/geometry/crop-window";
import type { Led } from "~/core/path/reshape";

/** Steering: the window is held and led during playback. Records where it is at each frame presented. */
export class Steering {
  private held: { centre: Point; height: number } | null = null;
  private way: Led[] = [];

  /** @param keptIn gives the nearest permitted window at a frame */
  constructor(private readonly keptIn: (frame: number, window: CropWindow) => CropWindow) {}

  readonly isLed = (): boolean => this.held !== null;

  /** Takes hold of the window where it is. */
  begin({ x, y, height }: CropWindow): void {
    this.held = { centre: { x, y }, height };
    this.way = [];
  }

  /** Moves it by some pixels of the source. */
  lead(by: Point): void {
    if (!this.held) return;
    const { centre, height } = this.held;
    this.held = { centre: { x: centre.x + by.x, y: centre.y + by.y }, height };
  }

  /** Its place at a frame; null while it is not held. */
  readonly at = (frame: number): CropWindow | null => {
    if (!this.held) return null;
    const { centre, height } = this.held;
    return this.keptIn(frame, { ...centre, height });
  };

  /** Records its place at a frame that has been presented. */
  record(frame: number): void {
    const window = this.at(frame);
    if (window) this.way.push({ frame, window });
  }

  /** Lets go of it, and returns the recorded path. */
  end(): Led[] {
    this.held = null;
    const { way } = this;
    this.way = [];
    return way;
  }
}
