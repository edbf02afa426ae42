/** Lays a pane over one plane. */
import { edgeOf } from "~/core/composition/edge";
import type { Pane } from "~/core/composition/composition";
import type { Size } from "~/core/geometry/box";
import type { Samples } from "~/core/image/bit-depth";
import type { Plane } from "./backdrop";

/** The part of a plane's pixels that a pane touches, in whole pixels, and its cover at both borders. */
export interface Extent {
  from: number;
  count: number;
  /** Cover of the first and the last of them, 0 to 1. */
  first: number;
  last: number;
}

/** The pixels touched by a pane that begins and ends between pixels. */
export function extentOf(start: number, length: number, limit: number): Extent {
  const [low, high] = [Math.max(0, start), Math.min(limit, start + length)];
  const from = Math.floor(low);
  const to = Math.max(from, Math.ceil(high));
  const share = (pixel: number) => Math.max(0, Math.min(pixel + 1, high) - Math.max(pixel, low));
  return { from, count: to - from, first: share(from), last: share(to - 1) };
}

/** Lays a pane's pixels over a plane, with those on its borders in proportion to their cover. */
export function layOver({ samples, size }: Plane, made: Samples, x: Extent, y: Extent): void {
  const shareOf = ({ count, first, last }: Extent, i: number) => (i === 0 ? first : i === count - 1 ? last : 1);
  for (let j = 0; j < y.count; j++) {
    const to = (y.from + j) * size.width + x.from;
    const line = made.subarray(j * x.count, (j + 1) * x.count);
    const down = shareOf(y, j);
    const blend = (i: number) => {
      const share = down * shareOf(x, i);
      samples[to + i] = Math.round(share * line[i]! + (1 - share) * samples[to + i]!);
    };
    if (down < 1) for (let i = 0; i < x.count; i++) blend(i);
    else {
      const ends = [samples[to]!, samples[to + x.count - 1]!];
      samples.set(line, to);
      [samples[to], samples[to + x.count - 1]] = ends as [number, number];
      blend(0);
      if (x.count > 1) blend(x.count - 1);
    }
  }
}

const WHOLE = 255;

/** Cover of a pane, and of its shadow, at each pixel of luma and chroma; bytes, 255 for full. */
export interface EdgeMasks {
  cover: Uint8Array[];
  /** Null where there is none. */
  shadow: Uint8Array[] | null;
}

export function edgeMasks({ edge, target }: Pane & Required<Pick<Pane, "edge">>, frame: Size): EdgeMasks {
  const { cover, shadow } = edgeOf(edge, target, frame);
  const planes = [1, 2].map((subsampling) => ({
    subsampling,
    width: Math.ceil(frame.width / subsampling),
    height: Math.ceil(frame.height / subsampling),
  }));
  const masked = (shareAt: typeof cover) =>
    planes.map(({ subsampling, width, height }) => {
      const mask = new Uint8Array(width * height);
      for (let y = 0, i = 0; y < height; y++) {
        // Chroma is sited left: on the even luma columns, and between two luma rows.
        for (let x = 0; x < width; x++, i++)
          mask[i] = Math.round(
            WHOLE * shareAt(subsampling * x + 0.5, subsampling === 1 ? y + 0.5 : subsampling * y + 1),
          );
      }
      return mask;
    });
  return { cover: masked(cover), shadow: edge.look === "shadow" ? masked(shadow) : null };
}

/** Darkens a plane by a mask; `zero` is the 8-bit level without light or colour. */
export function darken({ samples, step }: Plane, mask: Uint8Array, zero: number): void {
  const black = step * zero;
  for (let i = 0; i < samples.length; i++) {
    const share = mask[i]!;
    if (share > 0) samples[i] = Math.round(black + ((WHOLE - share) / WHOLE) * (samples[i]! - black));
  }
}

/** Lays a pane's pixels over a plane by a mask of the plane. */
export function layOverMasked({ samples, size }: Plane, made: Samples, x: Extent, y: Extent, mask: Uint8Array): void {
  for (let j = 0, from = 0; j < y.count; j++) {
    for (let i = 0, to = (y.from + j) * size.width + x.from; i < x.count; i++, to++, from++) {
      const share = mask[to]!;
      if (share === WHOLE) samples[to] = made[from]!;
      else if (share > 0) samples[to] = Math.round((share * made[from]! + (WHOLE - share) * samples[to]!) / WHOLE);
    }
  }
}
