/**
 * Photographs of creatures and things that were cut out, for scenes over a real ground. What they show was seen by eye; a
 * third of each is set aside for the scenes that are kept apart.
 */
import { type Canvas, createCanvas, loadImage } from "@napi-rs/canvas";
import { join } from "node:path";
import { collectionFolder } from "../../photographs";

export interface CutOut {
  picture: Canvas;
  /** Of a creature that is longer than high: the side on which its head is. */
  head: "left" | "right" | null;
}

export interface CutOuts {
  creatures: CutOut[];
  things: CutOut[];
}

const HEAD_LEFT = `
  birds/helmeted_guineafowl fish/clownfish mammals/badger mammals/bovines/bull mammals/bovines/gnu-baby-stand
  mammals/bovines/gnu-baby mammals/bovines/indian_blackbuck mammals/bovines/ram mammals/camel/camel
  mammals/camel/dromedary mammals/cats/lion-2 mammals/cats/tiger mammals/cats/tiger_sumatran mammals/deer/wapiti
  mammals/elephant mammals/equines/donkey`;
const HEAD_RIGHT = `
  amphibians/frog birds/albino_peahen birds/blackbird birds/chicken_profile birds/duck birds/guineafowl birds/hen
  birds/lark birds/peacock birds/tucan fish/butterflyfish fish/dolphinfish insects/Brown_slug lizards/iguana
  mammals/aquatic/dolphin mammals/aquatic/otter mammals/bears/bear mammals/bears/european-bear mammals/bovines/cow
  mammals/bovines/sheep mammals/bovines/sheep_lamb mammals/bovines/yak mammals/bovines/zebu mammals/deer/caribou
  mammals/dogs/dog mammals/equines/donkey_eating mammals/equines/horse`;
/** As high as long, or seen from the front. */
const UPRIGHT = `
  amphibians/frog-1 birds/adelaide-rosella birds/crow birds/crowned_crane birds/drake birds/gander birds/heron_greatblue
  birds/magellanic_penguin birds/magpie birds/nandou birds/ostrich birds/owl birds/pelican birds/penguin birds/rainbow-lorikeet birds/rooster birds/silver-gull birds/turkey birds/vulture fish/seahorse insects/hornet insects/hoverfly
  insects/xanthia mammals/apes/gorilla mammals/bovines/cow_white mammals/bovines/goat mammals/bovines/mountaingoat
  mammals/deer/deer mammals/deer/doe`;
const THINGS = `
  food/fruit/apple_green food/fruit/apple_red food/fruit/orange food/fruit/pineapple food/fruit/pomegranate
  food/fruit/sliced_lime food/fruit/strawberry food/fruit/banana food/fruit/grapes food/fruit/pear
  food/vegetables/broccoli food/vegetables/carrot food/vegetables/eggplant food/vegetables/onion food/vegetables/pepper
  food/vegetables/pumpkin_small food/vegetables/tomato hobbies/binoculars hobbies/camera_35mm hobbies/music/brass/trumpet
  hobbies/music/percussion/drum_tomtom_floor hobbies/music/string/cello hobbies/music/string/guitar2
  hobbies/music/string/guitar_classical hobbies/music/string/violin household/dishes/mug household/dishes/pitcher_small
  household/dishes/teapot household/kettle household/rubberduck household/tools/hammer household/tools/plyers
  household/tools/toolbox household/tools/wrench_adjustable vehicles/auto/beetle vehicles/auto/sedan
  vehicles/auto/sportscar2 vehicles/auto/truck vehicles/construction/dumper vehicles/cycle/pink_tricycle
  vehicles/emergency/firetruck vehicles/emergency/sedan_police vehicles/flight/balloon360 vehicles/flight/planes/747
  vehicles/garbagetruck vehicles/masstransit/green_korean_bus vehicles/race/indycar vehicles/ship/chineseJunk
  vehicles/ship/walnutBoat`;

async function load(folder: string, names: string, head: CutOut["head"] = null): Promise<CutOut[]> {
  return Promise.all(
    names
      .trim()
      .split(/\s+/)
      .map(async (name) => {
        const image = await loadImage(join(folder, `${name}.png`));
        const picture = createCanvas(image.width, image.height);
        picture.getContext("2d").drawImage(image, 0, 0);
        return { picture, head };
      }),
  );
}

/** @returns those for the scenes that are tuned on, and those that are set aside */
export async function loadCutOuts(): Promise<{ tuned: CutOuts; apart: CutOuts }> {
  const folder = collectionFolder("cutOut");
  const animals = join(folder, "animals");
  const sides = [load(animals, HEAD_LEFT, "left"), load(animals, HEAD_RIGHT, "right"), load(animals, UPRIGHT)];
  const creatures = (await Promise.all(sides)).flat();
  const things = await load(folder, THINGS);
  const part = (isWanted: (index: number) => boolean): CutOuts => ({
    creatures: creatures.filter((_, i) => isWanted(i)),
    things: things.filter((_, i) => isWanted(i)),
  });
  return { tuned: part((i) => i % 3 > 0), apart: part((i) => i % 3 === 0) };
}
