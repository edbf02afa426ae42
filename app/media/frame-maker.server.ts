import type { Composition } from "~/core/composition/composition";
import type { Size } from "~/core/geometry/box";
import type { BitDepth } from "~/core/image/bit-depth";
import { LayerPainter } from "./layers/layer-painter.server";
import { registerFonts } from "./layers/fonts.server";
import { loadPictures, type OwnContents } from "./own/load-pictures.server";
import type { OwnPictures } from "./own/own-pictures.server";
import { Resampler } from "./resample/resampler.server";

/** Renders frames of compositions from decoded frames of the film. */
export class FrameMaker {
  private readonly painter: LayerPainter;

  private constructor(
    private readonly resampler: Resampler,
    /** Bits per sample of input and output. */
    readonly depth: BitDepth,
    readonly pictures: OwnPictures,
  ) {
    this.painter = new LayerPainter(resampler, pictures);
  }

  /**
   * @param picture size of the film's picture
   * @param target size of the frames; both sides even
   * @param own the editor's own files in them
   */
  static async open(picture: Size, target: Size, own: OwnContents, depth: BitDepth = 8): Promise<FrameMaker> {
    registerFonts(own.fonts);
    const pictures = await loadPictures(own, target);
    return new FrameMaker(new Resampler(picture, target, { pictures, depth }), depth, pictures);
  }

  /**
   * @param data a frame of the film, planar 4:2:0
   * @returns a frame of the target; overwritten by the next
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
