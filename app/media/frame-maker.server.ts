import type { Composition } from "~/core/composition/composition";
import type { Size } from "~/core/geometry/box";
import type { BitDepth } from "~/core/image/bit-depth";
import { LayerPainter } from "./layers/layer-painter.server";
import { registerFonts } from "./layers/fonts.server";
import { loadPictures, type OwnContents } from "./own/load-pictures.server";
import type { OwnPictures } from "./own/own-pictures.server";
import { Resampler } from "./resample/resampler.server";

/** Makes frames of compositions from decoded frames of the film, as they are rendered. */
export class FrameMaker {
  private readonly painter: LayerPainter;

  private constructor(
    private readonly resampler: Resampler,
    /** Bits of the samples of what it takes and gives. */
    readonly depth: BitDepth,
    readonly pictures: OwnPictures,
  ) {
    this.painter = new LayerPainter(resampler, pictures);
  }

  /**
   * @param picture size of the film's picture
   * @param target size of the frames that are made; both sides even
   * @param own what of the editor's own is in them
   */
  static async open(picture: Size, target: Size, own: OwnContents, depth: BitDepth = 8): Promise<FrameMaker> {
    registerFonts(own.fonts);
    const pictures = await loadPictures(own, target);
    return new FrameMaker(new Resampler(picture, target, { pictures, depth }), depth, pictures);
  }

  /**
   * @param data a frame of the film, planar 4:2:0
   * @returns the same of the target; it is overwritten by the next frame
   */
  async make(data: Buffer, composition: Composition): Promise<Uint8Array> {
    this.resampler.source.set(data);
    await this.pictures.prepare(composition);
    this.resampler.compose(composition);
    this.painter.paint(composition);
    return this.resampler.target;
  }

  close(): Promise<void> {
    return this.pictures.close();
  }
}
