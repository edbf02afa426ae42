/**
 * Tracks the content of a box: where the correlation filter peaks, if the colours there are the thing's, with a search over
 * scales (as in Danelljan et al., DSST, 2014). When the peak is no longer clear, or something has moved in front of the
 * thing, nothing is learnt, the box coasts on, and an ever larger area is searched until the thing is found again.
 */
import { clamped } from "../../numbers/clamped";
import { type Box, boxAround } from "../../geometry/box";
import type { YuvImage } from "../../image/yuv-image";
import { ColourModel } from "./colour-model";
import { CorrelationFilter, type Response } from "./correlation-filter";
import { describePatch, type PatchPlace, type PatchWindow, WHOLE_PATCH, windowOn } from "./patch";

/** Size of the patch relative to the box, to leave room for the search. */
const PADDING = 2.4;
const SCALE_STEP = 1.045;
const MAX_SCALE = 6;
/** A change of scale must gain more than this. */
const SCALE_PENALTY = 0.985;
/** Share of the usual peak below which the thing is not seen … */
const LOST_SHARE = 0.38;
/** … as below this many standard deviations of the rest of the response. */
const LOST_RATIO = 5;
/** A lost thing is found again only by a clearer peak than would have kept it. */
const FOUND_SHARE = 0.62;
/** Ratio at which a peak is certain; a still picture gives far clearer ones, which say nothing about the next. */
const CERTAIN_RATIO = 24;
/** Consecutive pictures are similar: size and appearance are adapted in every third. */
const ADAPT_EVERY = 3;
/** Share of the usual peak below which nothing is learnt. */
const LEARN_SHARE = 0.65;
/** The same for colours: for losing, for finding again, and for learning. */
const LOST_COLOUR = 0.57;
const FOUND_COLOUR = 0.7;
const LEARN_COLOUR = 0.75;
/** Weight of the colour fit of a box of another size, relative to the first one. */
const COLOUR_FIT = 0.5;
/** Updates that establish what is usual. */
const SETTLING = 6;
/** Places where a lost thing is searched, one after the other, in halves of the patch. */
const SEARCH = [
  [0, 0],
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [-1, -1],
  [1, -1],
  [-1, 1],
  [2, 0],
  [-2, 0],
  [3, 0],
  [-3, 0],
  [2, 1],
  [-2, 1],
  [2, -1],
  [-2, -1],
] as const;
/** Places searched in each picture beside the expected one. */
const SEARCHES = 3;

export interface Sighting {
  box: Box;
  /** False while the thing is not seen and the box only coasts. */
  seen: boolean;
  /** Peak-to-sidelobe ratio: how clear the sighting is. */
  ratio: number;
}

export class CorrelationTracker {
  private cx: number;
  private cy: number;
  private scale = 1;
  private vx = 0;
  private vy = 0;
  private updates = 0;
  private usualRatio = 0;
  private lost = 0;
  private growing = false;
  private readonly filter: CorrelationFilter;
  private readonly colours: ColourModel;
  private readonly patch: { width: number; height: number };
  private readonly focus: PatchWindow;

  /** Starts with the content of the box in this image. */
  constructor(
    image: YuvImage,
    private readonly box: Box,
  ) {
    this.cx = box.x + box.width / 2;
    this.cy = box.y + box.height / 2;
    const side = PADDING * Math.sqrt(box.width * box.height);
    this.patch = { width: Math.max(1.6 * box.width, side), height: Math.max(1.6 * box.height, side) };
    this.focus = windowOn({ width: box.width / this.patch.width, height: box.height / this.patch.height });
    this.filter = new CorrelationFilter(describePatch(image, this.placeAt(1), this.focus));
    this.colours = new ColourModel(image, box);
  }

  private placeAt(factor: number, offsetX = 0, offsetY = 0): PatchPlace {
    const scale = this.scale * factor;
    return {
      cx: this.cx + offsetX,
      cy: this.cy + offsetY,
      width: this.patch.width * scale,
      height: this.patch.height * scale,
    };
  }

  private respond(image: YuvImage, place: PatchPlace): Response {
    return this.filter.respond(describePatch(image, place, WHOLE_PATCH), place);
  }

  private boxAt(factor: number): Box {
    const scale = this.scale * factor;
    return boxAround({ x: this.cx, y: this.cy }, { width: this.box.width * scale, height: this.box.height * scale });
  }

  private get current(): Box {
    return this.boxAt(1);
  }

  /** Fit of a box of another size by colour, 1 if it holds as much of the thing as usual. */
  private fit(image: YuvImage, factor: number): number {
    const colour = this.colours.agreement(image, this.boxAt(factor));
    return Math.min(colour, 1 / colour) ** COLOUR_FIT;
  }

  /** Finds the thing in the next image. */
  update(image: YuvImage): Sighting {
    this.updates++;
    const wasLost = this.lost > 0;
    const response = wasLost ? this.searchAgain(image) : this.respond(image, this.placeAt(1, this.vx, this.vy));
    const threshold = Math.max(LOST_RATIO, (wasLost ? FOUND_SHARE : LOST_SHARE) * this.usualRatio);
    const [dx, dy] = [this.vx + response.dx, this.vy + response.dy];
    const colour = this.colours.agreement(image, { ...this.current, x: this.current.x + dx, y: this.current.y + dy });
    const unclear = this.updates > SETTLING && response.ratio < threshold;
    if (unclear || colour < (wasLost ? FOUND_COLOUR : LOST_COLOUR)) return this.coast(image, response.ratio);
    this.cx += dx;
    this.cy += dy;
    this.lost = 0;
    const whole = colour >= LEARN_COLOUR;
    if (!wasLost && whole) {
      this.vx = 0.6 * this.vx + 0.4 * dx;
      this.vy = 0.6 * this.vy + 0.4 * dy;
    }
    const ratio = Math.min(CERTAIN_RATIO, response.ratio);
    // A half-hidden thing is still followed, but what hides it is not learnt.
    if (!whole) return { box: this.current, seen: true, ratio: response.ratio };
    this.usualRatio = this.updates < 4 ? ratio : 0.9 * this.usualRatio + 0.1 * ratio;
    const due = this.growing || this.updates % ADAPT_EVERY === 0;
    if (due && ratio >= LEARN_SHARE * this.usualRatio) this.adapt(image, response.peak);
    return { box: this.current, seen: true, ratio: response.ratio };
  }

  /** Continues the thing's motion while it is not seen. */
  private coast(image: YuvImage, ratio: number): Sighting {
    this.cx = clamped(this.cx + this.vx, 0, image.width);
    this.cy = clamped(this.cy + this.vy, 0, image.height);
    this.lost++;
    this.vx *= 0.96;
    this.vy *= 0.96;
    return { box: this.current, seen: false, ratio };
  }

  /** Learns the thing's present appearance, and whether it has grown or shrunk since its peak was `peak`. */
  private adapt(image: YuvImage, peak: number): void {
    let best = 1;
    let bestValue = peak * this.fit(image, 1);
    for (const factor of [SCALE_STEP, 1 / SCALE_STEP]) {
      const { peak: other } = this.respond(image, this.placeAt(factor));
      const value = SCALE_PENALTY * other * this.fit(image, factor);
      if (value > bestValue) [best, bestValue] = [factor, value];
    }
    // Growth or shrinkage continues from picture to picture.
    this.growing = best !== 1;
    this.scale = clamped(this.scale * best, 1 / MAX_SCALE, MAX_SCALE);
    this.filter.learn(describePatch(image, this.placeAt(1), this.focus));
    this.colours.learn(image, this.current);
  }

  /** The clearest peak at the expected place of the lost thing and some places around, which alternate. */
  private searchAgain(image: YuvImage): Response {
    let best: Response | null = null;
    for (let k = 0; k <= SEARCHES; k++) {
      const [x, y] = SEARCH[k === 0 ? 0 : 1 + ((this.lost * SEARCHES + k) % (SEARCH.length - 1))]!;
      const place = this.placeAt(1);
      const offset = { x: (x * place.width) / 2, y: (y * place.height) / 2 };
      const response = this.respond(image, this.placeAt(1, this.vx + offset.x, this.vy + offset.y));
      if (best && response.ratio <= best.ratio) continue;
      best = { ...response, dx: response.dx + offset.x, dy: response.dy + offset.y };
    }
    return best!;
  }
}
