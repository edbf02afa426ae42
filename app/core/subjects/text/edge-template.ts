/** The edges of a part of a picture, to be found again at the same place in others. */
import type { Box } from "../../geometry/box";
import type { GreyPlane } from "../../image/grey-plane";
import { LEAST_EDGE } from "./steady-edges";

/** Edges of a picture: their samples, and the change of luma across each to the right and downwards. */
export interface EdgeTemplate {
  places: Int32Array;
  across: Int16Array;
  down: Int16Array;
  /** Sum of the squares of all changes. */
  energy: number;
}

interface Gradient {
  across: number;
  down: number;
}

/** The change of luma about a sample; none beyond the picture. */
const gradientAt = ({ samples, width }: GreyPlane, at: number): Gradient => ({
  across: samples[at + 1]! - samples[at - 1]! || 0,
  down: samples[at + width]! - samples[at - width]! || 0,
});

function templateOf(luma: GreyPlane, places: readonly number[]): EdgeTemplate {
  const gradients = places.map((at) => gradientAt(luma, at));
  return {
    places: Int32Array.from(places),
    across: Int16Array.from(gradients, ({ across }) => across),
    down: Int16Array.from(gradients, ({ down }) => down),
    energy: gradients.reduce((sum, { across, down }) => sum + across * across + down * down, 0),
  };
}

/**
 * The edges within a box.
 * @param without boxes whose edges are left out
 */
export function edgeTemplate(luma: GreyPlane, box: Box, without: readonly Box[] = []): EdgeTemplate {
  const places: number[] = [];
  const [left, top] = [Math.max(1, Math.floor(box.x)), Math.max(1, Math.floor(box.y))];
  const right = Math.min(luma.width - 1, Math.ceil(box.x + box.width));
  const bottom = Math.min(luma.height - 1, Math.ceil(box.y + box.height));
  const isLeftOut = (x: number, y: number) =>
    without.some(
      (other) =>
        x >= other.x - 2 && x < other.x + other.width + 2 && y >= other.y - 2 && y < other.y + other.height + 2,
    );
  for (let y = top; y < bottom; y++) {
    for (let x = left; x < right; x++) {
      const { across, down } = gradientAt(luma, y * luma.width + x);
      if ((Math.abs(across) >= LEAST_EDGE || Math.abs(down) >= LEAST_EDGE) && !isLeftOut(x, y))
        places.push(y * luma.width + x);
    }
  }
  return templateOf(luma, places);
}

/** Share of an edge that is left of it in a picture, 0 to 1, weighted by the square of its strength. */
function left({ across, down }: EdgeTemplate, i: number, now: Gradient): number {
  const energy = across[i]! ** 2 + down[i]! ** 2;
  return Math.max(-energy, Math.min(energy, across[i]! * now.across + down[i]! * now.down));
}

/**
 * How much of a template is in a picture: the least-squares factor on its changes of luma, which is the opacity of text
 * that fades. About 0 where something else is in its place, since that is uncorrelated.
 * @param by distance in samples, row by row, from where the template was taken
 * @returns at most 1; NaN for a template without edges
 */
export function presenceOf(template: EdgeTemplate, luma: GreyPlane, by = 0): number {
  let sum = 0;
  template.places.forEach((at, i) => (sum += left(template, i, gradientAt(luma, at + by))));
  return sum / template.energy;
}

/** Farthest that something has moved between two looks at it, in samples each way. */
const ASIDE = 8;

/** The most of a template that is in a picture nearby. */
export function presenceNearby(template: EdgeTemplate, luma: GreyPlane): number {
  let most = 0;
  for (let y = -ASIDE; y <= ASIDE; y++)
    for (let x = -ASIDE; x <= ASIDE; x++) most = Math.max(most, presenceOf(template, luma, y * luma.width + x));
  return most;
}

/** The edges of a template that are at least half as strong in another picture. */
export function keepCommon(template: EdgeTemplate, from: GreyPlane, luma: GreyPlane): EdgeTemplate {
  const kept = [...template.places].filter((at, i) => {
    const energy = template.across[i]! ** 2 + template.down[i]! ** 2;
    return left(template, i, gradientAt(luma, at)) >= energy / 2;
  });
  return templateOf(from, kept);
}
