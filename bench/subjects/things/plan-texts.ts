/** The benchmark's scenes with text: put over the picture, all there is to be seen, or part of what is shown. */
import type { SKRSContext2D } from "@napi-rs/canvas";
import { type Box, boxUnion } from "~/core/geometry/box";
import {
  between,
  drawCreature,
  drawGround,
  drawStudio,
  drawThing,
  onStage,
  pick,
  someLook,
  STAGE,
  throughCamera,
} from "./draw-things";
import type { Sketch } from "./plan-things";

const { width: W, height: H } = STAGE;
const WORDS = [
  "HARBOUR",
  "Light",
  "Seven",
  "LANTERN",
  "Valley",
  "Road",
  "THE",
  "Kettle",
  "of",
  "morning",
  "Two",
  "Ferrow",
];
const NAMES = ["Runa Veldt", "Osk Tamarind", "Dr. Lien Havre", "Milo Quist", "Sana Orell"];
const FONTS = ["Inter", "serif", "sans-serif", "monospace"];

/** Lines of text about a place. @returns the box around their ink */
function drawLines(
  g: SKRSContext2D,
  lines: readonly string[],
  { x, y, size, font, align }: { x: number; y: number; size: number; font: string; align: "left" | "center" },
): Box {
  g.font = `700 ${size}px ${font}`;
  g.textAlign = align;
  g.textBaseline = "alphabetic";
  const boxes = lines.map((line, i): Box => {
    const at = y + i * 1.25 * size;
    g.fillText(line, x, at);
    const ink = g.measureText(line);
    return {
      x: x - ink.actualBoundingBoxLeft,
      y: at - ink.actualBoundingBoxAscent,
      width: ink.actualBoundingBoxLeft + ink.actualBoundingBoxRight,
      height: ink.actualBoundingBoxAscent + ink.actualBoundingBoxDescent,
    };
  });
  return boxUnion(boxes);
}

const someLines = (random: () => number, count: number, words: number) =>
  Array.from({ length: count }, () => Array.from({ length: words }, () => pick(random, WORDS)).join(" "));

/** A card that is nothing but a title, on an even ground or on a still photograph. */
const titleCard: Sketch = (random, { grounds }) => {
  const [ground, plain, hue] = [pick(random, grounds), random() < 0.6, random() * 360];
  const lines = someLines(random, 1 + Math.floor(random() * 3), 1 + Math.floor(random() * 2));
  const [size, font] = [between(random, 56, 120), pick(random, FONTS)];
  return (g) => {
    if (plain) drawStudio(g, hue, 30);
    else drawGround(g, ground, 6, 0.5);
    g.fillStyle = "#f4efe2";
    return { things: [], text: drawLines(g, lines, { x: W / 2, y: 0.42 * H, size, font, align: "center" }) };
  };
};

/** A title over a moving picture. */
const titleOver: Sketch = (random, { grounds }) => {
  const ground = pick(random, grounds);
  const lines = someLines(random, 1 + Math.floor(random() * 2), 2);
  const [size, font, speed] = [between(random, 48, 90), pick(random, FONTS), between(random, 20, 60)];
  return (g, t) => {
    throughCamera(g, { x: speed * (t - 2), y: 0, zoom: 1 }, () => drawGround(g, ground, 1));
    if (t < 0.6) return { things: [] };
    g.shadowColor = "rgba(0,0,0,0.6)";
    g.shadowBlur = 8;
    g.fillStyle = "#ffffff";
    const text = drawLines(g, lines, { x: W / 2, y: 0.5 * H, size, font, align: "center" });
    g.shadowBlur = 0;
    g.shadowColor = "transparent";
    return { things: [], text };
  };
};

/** What somebody is called at the foot of the picture, on a band or not. */
interface NamePlate {
  name: string;
  font: string;
  band: boolean;
  x: number;
}

/** Draws a name at the foot. @returns the box around its ink */
function drawName(g: SKRSContext2D, { name, font, band, x }: NamePlate): Box {
  if (band) {
    g.fillStyle = "rgba(20,24,30,0.82)";
    g.fillRect(x - 20, 0.79 * H, 480, 100);
  }
  g.fillStyle = "#ffffff";
  return drawLines(g, [name, "keeper of the lamp"], { x, y: 0.85 * H, size: 38, font, align: "left" });
}

/** A name at the foot, with and without a band behind it, while somebody walks above. */
const lowerThird: Sketch = (random, { grounds }) => {
  const [ground, name, font] = [pick(random, grounds), pick(random, NAMES), pick(random, FONTS)];
  const [band, x, size] = [random() < 0.6, between(random, 0.05, 0.4) * W, between(random, 300, 380)];
  const creature = { body: `hsl(${random() * 360} 50% 50%)`, belly: "#efe6d8", ears: "round" as const, outlined: true };
  const from = between(random, 0.3, 0.6) * W;
  return (g, t) => {
    throughCamera(g, { x: 18 * t, y: 6 * Math.sin(2 * t), zoom: 1 }, () => drawGround(g, ground, 4));
    const at = { x: from + 45 * t, y: 0.7 * H, size, facing: 1, step: 6 * t };
    const { box } = drawCreature(g, creature, at);
    return { things: [box], text: drawName(g, { name, font, band, x }) };
  };
};

/** A small mark of a station in a corner all the time. */
const cornerLogo: Sketch = (random, { grounds, textures }) => {
  const [ground, look] = [pick(random, grounds), someLook(random, textures)];
  const [right, low] = [random() < 0.5, random() < 0.5];
  const [size, speed] = [between(random, 190, 300), between(random, 25, 60)];
  return (g, t) => {
    const view = { x: speed * (t - 2), y: 0, zoom: 1 };
    const thing = throughCamera(g, view, () => {
      drawGround(g, ground, 3);
      return drawThing(g, "toy", look, 0.5 * W + 1.4 * speed * (t - 2), 0.8 * H, size);
    });
    const [x, y] = [right ? W - 190 : 60, low ? H - 60 : 90];
    g.fillStyle = "rgba(255,255,255,0.9)";
    return {
      things: [onStage(thing, view)],
      text: drawLines(g, ["canal 4"], { x, y, size: 36, font: "sans-serif", align: "left" }),
    };
  };
};

/** A board with words in the scene, which moves with all else: no text area. */
const sign: Sketch = (random, { grounds }) => {
  const [ground, font] = [pick(random, grounds), pick(random, FONTS)];
  const words = someLines(random, 2, 1);
  const speed = between(random, 35, 70);
  const creature = { body: `hsl(${random() * 360} 45% 48%)`, belly: "#efe6d8", ears: "long" as const, outlined: false };
  const [x, size] = [between(random, 0.62, 0.75) * W, between(random, 300, 380)];
  return (g, t) => {
    const view = { x: speed * (t - 2), y: 0, zoom: 1 };
    const box = throughCamera(g, view, () => {
      drawGround(g, ground, 4);
      g.fillStyle = "#2e4a3a";
      g.fillRect(0.2 * W, 0.25 * H, 300, 190);
      g.fillStyle = "#f0ead8";
      drawLines(g, words, { x: 0.2 * W + 150, y: 0.25 * H + 80, size: 52, font, align: "center" });
      return drawCreature(g, creature, { x, y: 0.88 * H, size, facing: -1, step: 0.3 * Math.sin(2 * t) }).box;
    });
    return { things: [onStage(box, view)] };
  };
};

/** A name that is there when the shot begins, before a camera that stands, and goes while it does. */
const nameThatGoes: Sketch = (random, { grounds }) => {
  const [ground, name, font] = [pick(random, grounds), pick(random, NAMES), pick(random, FONTS)];
  const [band, x, until] = [random() < 0.6, between(random, 0.05, 0.4) * W, between(random, 2, 2.8)];
  const creature = { body: `hsl(${random() * 360} 50% 50%)`, belly: "#efe6d8", ears: "round" as const, outlined: true };
  const [from, size] = [between(random, 0.35, 0.6) * W, between(random, 300, 360)];
  return (g, t) => {
    drawGround(g, ground, 4);
    const at = { x: from + 30 * Math.sin(2 * t), y: 0.72 * H, size, facing: 1, step: 6 * t };
    const { box } = drawCreature(g, creature, at);
    if (t > until) return { things: [box] };
    return { things: [box], text: drawName(g, { name, font, band, x }) };
  };
};

/** A board with words in the scene, before a camera that stands; somebody walks past in front of it: no text area. */
const passedSign: Sketch = (random, { grounds }) => {
  const [ground, font] = [pick(random, grounds), pick(random, FONTS)];
  const words = someLines(random, 2, 1);
  const creature = { body: `hsl(${random() * 360} 45% 48%)`, belly: "#efe6d8", ears: "long" as const, outlined: false };
  const [speed, size] = [between(random, 300, 420), between(random, 420, 520)];
  return (g, t) => {
    drawGround(g, ground, 4);
    g.fillStyle = "#2e4a3a";
    g.fillRect(0.4 * W, 0.45 * H, 260, 150);
    g.fillStyle = "#f0ead8";
    drawLines(g, words, { x: 0.4 * W + 130, y: 0.45 * H + 65, size: 44, font, align: "center" });
    const at = { x: speed * (t - 1.2), y: 0.95 * H, size, facing: 1, step: 6 * t };
    return { things: [drawCreature(g, creature, at).box] };
  };
};

export const TEXT_SETS: Record<string, Sketch> = {
  "title card": titleCard,
  "title over film": titleOver,
  "lower third": lowerThird,
  "corner logo": cornerLogo,
  sign,
  "name that goes": nameThatGoes,
  "passed sign": passedSign,
};
