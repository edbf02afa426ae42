/** The editor's own pictures in the frames of a version, still and moving. */
import { createCanvas, type Canvas, type Image, ImageData } from "@napi-rs/canvas";
import type { Composition, Pane } from "~/core/composition/composition";
import type { PictureAt } from "~/core/composition/picture";
import { mapBox, type Size, wholeOf } from "~/core/geometry/box";
import { decodeFrames } from "../decode.server";
import { evenBox, type OverlayPlane, opaquePlanes, overlayOf } from "../layers/overlay";
import { type PictureProvider, Resampler } from "../resample/resampler.server";
import { decodeRgba, type MovingFile } from "./moving/moving-file.server";
import { MovingReader } from "./moving/moving-reader";

/** Decoded still pictures, by id. */
export type LoadedPictures = ReadonlyMap<string, Image>;

/** One use of a moving picture, with its current frame. */
interface Playing {
  reader: MovingReader;
  /** Size of its frames. */
  size: Size;
  data: Buffer | null;
  /** Scales it where it covers much of the frame. */
  scaler: Resampler | null;
}

const keyOf = ({ slot, picture }: PictureAt): string => `${slot} ${picture.id}`;

export class OwnPictures implements PictureProvider {
  private readonly playing = new Map<string, Playing>();
  private readonly still = new Map<string, OverlayPlane[]>();

  /**
   * @param frame size of the version
   * @param stills still pictures, by id
   * @param moving moving pictures, by id
   */
  constructor(
    private readonly frame: Size,
    private readonly stills: LoadedPictures,
    readonly moving: ReadonlyMap<string, MovingFile>,
  ) {}

  /** Prepares the moving pictures of a composition, which is to be drawn next. */
  async prepare({ layers, backdrop, panes }: Composition): Promise<void> {
    const side = Math.min(this.frame.width, this.frame.height);
    const wanted = [
      ...(layers?.at ?? []).flatMap(({ layer, picture }) =>
        picture && layer.kind === "picture" ? [{ at: picture, width: layer.width * side }] : [],
      ),
      ...[backdrop?.own, ...panes.map(({ own }) => own)].flatMap((at) => (at ? [{ at, width: null }] : [])),
    ].filter(({ at }) => this.moving.has(at.picture.id));
    const used = new Set(wanted.map(({ at }) => keyOf(at)));
    for (const [key, { reader }] of this.playing) {
      if (used.has(key)) continue;
      this.playing.delete(key);
      await reader.close();
    }
    for (const { at, width } of wanted) {
      const key = keyOf(at);
      const one = this.playing.get(key) ?? this.open(at, width);
      this.playing.set(key, one);
      one.data = await one.reader.frame(at.frame);
    }
  }

  /** @param width of a layer, in pixels of the frame; null for a picture that the render's own filter scales */
  private open({ picture }: PictureAt, width: number | null): Playing {
    const file = this.moving.get(picture.id)!;
    const { picture: full, frames } = file.info;
    if (width === null) {
      const reader = new MovingReader((range) => decodeFrames(file, { range }), frames);
      return { reader, size: full, data: null, scaler: new Resampler(full, this.frame) };
    }
    const scale = Math.min(1, width / full.width);
    const size = {
      width: Math.max(1, Math.round(scale * full.width)),
      height: Math.max(1, Math.round(scale * full.height)),
    };
    return {
      reader: new MovingReader((range) => decodeRgba(file, size, range), frames),
      size,
      data: null,
      scaler: null,
    };
  }

  /** A picture to be drawn on a canvas; null where it is missing. */
  image(at: PictureAt): Canvas | Image | null {
    const playing = this.playing.get(keyOf(at));
    if (!playing) return this.stills.get(at.picture.id) ?? null;
    if (!playing.data || playing.scaler) return null;
    const { width, height } = playing.size;
    const canvas = createCanvas(width, height);
    canvas.getContext("2d").putImageData(new ImageData(new Uint8ClampedArray(playing.data), width, height), 0, 0);
    return canvas;
  }

  planes(pane: Pane, colour: string): OverlayPlane[] {
    const { own: at, source, target } = pane;
    if (!at) return [];
    const playing = this.playing.get(keyOf(at));
    if (playing?.scaler && playing.data) {
      const { scaler, data } = playing;
      scaler.source.set(data);
      const behind = { look: { kind: "colour" as const, colour }, source };
      scaler.compose({ size: this.frame, backdrop: behind, panes: [{ source, target }], layers: null });
      return opaquePlanes(scaler.target, this.frame, evenBox(target, this.frame));
    }
    const image = this.stills.get(at.picture.id);
    return image ? this.stillPlanes(image, pane) : [];
  }

  /** For a still picture they are made once. */
  private stillPlanes(image: Image, { source, target, own }: Pane): OverlayPlane[] {
    const key = JSON.stringify([own!.picture.id, source, target]);
    const known = this.still.get(key);
    if (known) return known;
    const box = evenBox(target, this.frame);
    const canvas = createCanvas(box.width, box.height);
    const context = canvas.getContext("2d");
    context.imageSmoothingQuality = "high";
    const { x, y, width, height } = mapBox(wholeOf(own!.picture), source, target);
    context.drawImage(image, x - box.x, y - box.y, width, height);
    const planes = overlayOf(canvas.data(), box);
    this.still.set(key, planes);
    return planes;
  }

  async close(): Promise<void> {
    for (const { reader } of this.playing.values()) await reader.close();
  }
}
