/**
 * Fits the weights by which `likelyThings` joins its evidence, to photographs of creatures and things before others of
 * landscapes; none of those that are set aside for the films is among them. Prints the weights, and how often the likeliest
 * is right in pictures that were left out of the fit.
 *
 *   ./glad-pan bench likely [--count PICTURES-A-SET]
 */
import { parseArgs } from "node:util";
import { boxIou, wholeOf } from "~/core/geometry/box";
import { mean } from "~/core/numbers/mean";
import { boxesInside } from "~/core/subjects/detecting/any-boxes";
import { EVIDENCE, evidenceFor, outlinesOf } from "~/core/subjects/detecting/likely-things";
import { salientThings } from "~/core/subjects/detecting/saliency";
import { ObjectDetector } from "~/media/detect/object-detector.server";
import { loadPictures } from "./pictures";
import { emptyStills, type Still, STILL_SIZE, stillOf } from "./still-pictures";

const { values } = parseArgs({ options: { count: { type: "string", default: "150" } } });
/** Overlap (IoU) from which an outline is right. */
const RIGHT = 0.5;
const ROUNDS = 4000;
const RATE = 1;
/** Weight of the squares of the weights, which keeps them small where the evidence says little. */
const RIDGE = 1e-3;

/** One outline of a picture. */
interface Example {
  evidence: number[];
  isRight: boolean;
}

const network = await ObjectDetector.load(STILL_SIZE);
async function examplesIn({ image, things }: Still): Promise<Example[]> {
  const boxes = boxesInside((await network.detect(image, true)).boxes, wholeOf(image));
  const salient = salientThings(image);
  return outlinesOf(boxes, salient).map((outline) => {
    const evidence = evidenceFor(outline, boxes, salient, image);
    return {
      evidence: EVIDENCE.map((name) => evidence[name]),
      isRight: things.some((box) => boxIou(box, outline.box) > RIGHT),
    };
  });
}

/** Weights of the evidence, and of none of the outlines. */
interface Weights {
  of: number[];
  none: number;
}

const utility = ({ of }: Weights, { evidence }: Example) => evidence.reduce((sum, value, k) => sum + of[k]! * value, 0);

/** The most likely weights, by gradient ascent; what is right is one of the right outlines, or none where there is none. */
function fit(stills: readonly (readonly Example[])[]): Weights {
  const weights: Weights = { of: EVIDENCE.map(() => 0), none: 0 };
  for (let round = 0; round < ROUNDS; round++) {
    const up: Weights = { of: weights.of.map((weight) => -RIDGE * weight), none: 0 };
    for (const outlines of stills) {
      const odds = outlines.map((outline) => Math.exp(utility(weights, outline)));
      const none = Math.exp(weights.none);
      const all = odds.reduce((sum, each) => sum + each, none);
      const right = outlines.reduce((sum, { isRight }, i) => sum + (isRight ? odds[i]! : 0), 0);
      outlines.forEach(({ evidence, isRight }, i) => {
        const more = (isRight ? odds[i]! / right : 0) - odds[i]! / all;
        for (const k of up.of.keys()) up.of[k]! += (more * evidence[k]!) / stills.length;
      });
      up.none += ((right === 0 ? 1 : 0) - none / all) / stills.length;
    }
    for (const k of up.of.keys()) weights.of[k]! += RATE * up.of[k]!;
    weights.none += RATE * up.none;
  }
  return weights;
}

const pictures = await loadPictures();
const stills: Example[][] = [];
for (let seed = 1000; seed < 1000 + Number(values.count); seed++) {
  for (const set of ["real creature", "real thing"]) stills.push(await examplesIn(stillOf(set, seed, pictures)));
}
const empty: Example[][] = [];
for (const still of emptyStills(pictures)) empty.push(await examplesIn(still));

const isIn = (half: number) => (_: unknown, i: number) => i % 4 < 2 === (half === 0);
const rights = [0, 1].flatMap((half) => {
  const weights = fit([...stills.filter(isIn(1 - half)), ...empty.filter(isIn(1 - half))]);
  return stills.filter(isIn(half)).map((outlines) => {
    const [best] = outlines.toSorted((a, b) => utility(weights, b) - utility(weights, a));
    return best?.isRight ? 1 : 0;
  });
});
console.log(`the likeliest is right in ${(100 * mean(rights)).toFixed(1)}% of ${rights.length} pictures`);
const weights = fit([...stills, ...empty]);
const named = EVIDENCE.map((name, k) => [name, weights.of[k]!] as const);
for (const [name, weight] of [["none", weights.none] as const, ...named]) console.log(`${name}: ${weight.toFixed(2)},`);
