import { createCanvas, type SKRSContext2D } from "@napi-rs/canvas";
import type { Composition } from "~/core/composition/composition";
import { drawLayer, type LayerGround, placeLayer } from "~/core/composition/layers/draw-layer";
import type { LayerAt } from "~/core/composition/layers/layer-at";
import type { Layer } from "~/core/composition/layers/layer";
import { soften, softRadius } from "~/core/composition/layers/soften";
import { type PictureAt, USUAL_PLAYBACK } from "~/core/composition/picture";
import type { Resampler } from "../resample/resampler.server";
import type { OwnPictures } from "../own/own-pictures.server";
import { registerFonts } from "./fonts.server";
import { evenBox, type OverlayPlane, overlayOf } from "./overlay";

/**
 * Lays the layers of compositions over the frames of a resampler. A layer that does not move is drawn once, and kept while
 * it is visible: a long film has thousands of captions.
 */
export class LayerPainter {
  private readonly drawn = new Map<Layer, OverlayPlane[] | null>();
  private measuring: SKRSContext2D | null = null;

  /** @param pictures those in the layers */
  constructor(
    private readonly resampler: Resampler,
    private readonly pictures: Pick<OwnPictures, "image">,
  ) {}

  paint({ layers }: Composition): void {
    const present = new Set(layers?.at.map(({ layer }) => layer));
    for (const layer of this.drawn.keys()) if (!present.has(layer)) this.drawn.delete(layer);
    for (const at of layers?.at ?? []) this.lay(at, layers!.ground);
  }

  private lay({ layer, opacity, shift, picture }: LayerAt, ground: LayerGround): void {
    if (picture || !this.drawn.has(layer)) this.drawn.set(layer, this.draw(layer, ground, picture));
    const planes = this.drawn.get(layer);
    if (!planes) return;
    // Whole chroma samples, as everywhere.
    const by = {
      x: 2 * Math.round((shift.x * ground.frame.width) / 2),
      y: 2 * Math.round((shift.y * ground.frame.height) / 2),
    };
    this.resampler.blend(planes, opacity, by, layer.blend);
  }

  /** Null for a layer that paints nothing inside the frame. */
  private draw(layer: Layer, ground: LayerGround, at?: PictureAt): OverlayPlane[] | null {
    registerFonts();
    this.measuring ??= createCanvas(1, 1).getContext("2d");
    const placed = placeLayer(layer, ground, this.measuring);
    const box = evenBox(placed.ink, ground.frame);
    if (box.width === 0 || box.height === 0) return null;
    const context = createCanvas(box.width, box.height).getContext("2d");
    context.translate(-box.x, -box.y);
    drawLayer(context, layer, placed, (picture) =>
      this.pictures.image(at ?? { picture, frame: 0, playback: USUAL_PLAYBACK, slot: "" }),
    );
    const radius = softRadius(layer, ground.frame);
    if (radius > 0) {
      const pixels = context.getImageData(0, 0, box.width, box.height);
      soften(pixels.data, box, radius);
      context.putImageData(pixels, 0, 0);
    }
    return overlayOf(context.canvas.data(), box);
  }
}
