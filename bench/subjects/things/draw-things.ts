/** Things as the benchmark draws them: made of pieces of photographs, or painted as a cartoon is. Each says where it is. */
import type { Canvas, SKRSContext2D } from "@napi-rs/canvas";
import type { Box } from "~/core/geometry/box";

export const STAGE = { width: 1280, height: 720 };

export type Random = () => number;
export const between = (random: Random, low: number, high: number) => low + random() * (high - low);
export const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random() * from.length)]!;

/** Where a camera is over what it shows: what lies at the stage's middle, how near it is, and how it is turned aside. */
export interface Camera {
  x: number;
  y: number;
  zoom: number;
}

/** Draws what a camera sees, and gives back a function from places there to places on the stage. */
export function throughCamera<T>(g: SKRSContext2D, { x, y, zoom }: Camera, draw: () => T): T {
  g.save();
  g.translate(STAGE.width / 2, STAGE.height / 2);
  g.scale(zoom, zoom);
  g.translate(-STAGE.width / 2 - x, -STAGE.height / 2 - y);
  const drawn = draw();
  g.restore();
  return drawn;
}

/** Where a box of what a camera sees is on the stage. */
export const onStage = (box: Box, { x, y, zoom }: Camera): Box => ({
  x: STAGE.width / 2 + (box.x - x - STAGE.width / 2) * zoom,
  y: STAGE.height / 2 + (box.y - y - STAGE.height / 2) * zoom,
  width: box.width * zoom,
  height: box.height * zoom,
});

/** A photograph as ground, larger than the stage by a margin on all sides that a camera may move in. */
export function drawGround(g: SKRSContext2D, photograph: Canvas, blur = 0, light = 1): void {
  const margin = 0.35;
  const [width, height] = [STAGE.width * (1 + 2 * margin), STAGE.height * (1 + 2 * margin)];
  const filters = [...(blur ? [`blur(${blur}px)`] : []), ...(light === 1 ? [] : [`brightness(${light})`])];
  if (filters.length > 0) g.filter = filters.join(" ");
  g.drawImage(photograph, -margin * STAGE.width, -margin * STAGE.height, width, height);
  g.filter = "none";
}

/** An even ground with a table's edge, as in a studio. */
export function drawStudio(g: SKRSContext2D, hue: number, lightness: number): void {
  const wall = g.createLinearGradient(0, 0, 0, STAGE.height);
  wall.addColorStop(0, `hsl(${hue} 14% ${lightness}%)`);
  wall.addColorStop(0.62, `hsl(${hue} 14% ${lightness - 9}%)`);
  wall.addColorStop(0.66, `hsl(${hue} 18% ${lightness - 22}%)`);
  wall.addColorStop(1, `hsl(${hue} 18% ${lightness - 13}%)`);
  g.fillStyle = wall;
  g.fillRect(-STAGE.width, -STAGE.height / 2, 3 * STAGE.width, 2 * STAGE.height);
}

export interface Look {
  /** What it is covered with, and the colour that goes over it. */
  texture: Canvas;
  cut: { x: number; y: number };
  colour: string;
}

export const someLook = (random: Random, textures: readonly Canvas[], hue = random() * 360): Look => ({
  texture: pick(random, textures),
  cut: { x: random() * 0.5, y: random() * 0.5 },
  colour: `hsl(${hue} ${between(random, 45, 85)}% ${between(random, 45, 68)}%)`,
});

/** Fills the outline that was begun with a look, lit from the left. */
function fillWith(g: SKRSContext2D, { texture, cut, colour }: Look, box: Box): void {
  g.save();
  g.clip();
  g.fillStyle = colour;
  g.fillRect(box.x, box.y, box.width, box.height);
  g.globalCompositeOperation = "overlay";
  const [width, height] = [texture.width / 3, texture.height / 3];
  g.drawImage(
    texture,
    cut.x * texture.width,
    cut.y * texture.height,
    width,
    height,
    box.x,
    box.y,
    box.width,
    box.height,
  );
  g.globalCompositeOperation = "source-over";
  const light = g.createLinearGradient(box.x, box.y, box.x + box.width, box.y);
  light.addColorStop(0, "rgba(255,255,255,0.22)");
  light.addColorStop(0.4, "rgba(0,0,0,0)");
  light.addColorStop(1, "rgba(0,0,0,0.4)");
  g.fillStyle = light;
  g.fillRect(box.x, box.y, box.width, box.height);
  g.restore();
}

export const THINGS = ["jar", "cup", "box", "toy", "lamp"] as const;
export type Thing = (typeof THINGS)[number];

/**
 * A thing that stands on a place.
 *
 * @param x middle of its foot; `y` its foot; `size` its height
 * @param turned how far it is turned about its upright axis, in radians
 */
export function drawThing(
  g: SKRSContext2D,
  thing: Thing,
  look: Look,
  x: number,
  y: number,
  size: number,
  turned = 0,
): Box {
  const face = Math.cos(turned);
  const wide = { jar: 0.62, cup: 0.8, box: 0.7, toy: 0.72, lamp: 0.6 }[thing] * size;
  // What is round looks the same from all sides; a box shows its edge, and what sticks out goes to and fro.
  const width = thing === "box" ? wide * (0.62 + 0.38 * Math.abs(face)) : wide;
  const box = { x: x - width / 2, y: y - size, width, height: size };
  const shifted = { ...look, cut: { x: look.cut.x + 0.08 * Math.sin(turned), y: look.cut.y } };
  g.beginPath();
  switch (thing) {
    case "jar":
      g.roundRect(box.x, y - 0.82 * size, width, 0.82 * size, 0.12 * size);
      fillWith(g, shifted, box);
      g.fillStyle = "#3c3a36";
      g.fillRect(x - 0.22 * size, y - size, 0.44 * size, 0.2 * size);
      break;
    case "cup": {
      g.roundRect(x - 0.28 * size, y - size, 0.56 * size, size, [0, 0, 0.2 * size, 0.2 * size]);
      fillWith(g, shifted, box);
      const side = 0.4 * size * face;
      g.strokeStyle = look.colour;
      g.lineWidth = 0.09 * size;
      g.beginPath();
      g.ellipse(x + 0.7 * side, y - 0.55 * size, Math.max(4, Math.abs(0.3 * side)), 0.2 * size, 0, 0, 7);
      g.stroke();
      break;
    }
    case "box":
      g.rect(box.x, box.y, width, size);
      fillWith(g, shifted, box);
      g.fillStyle = "rgba(0,0,0,0.35)";
      g.fillRect(
        face > 0 ? box.x + width * (0.6 + 0.4 * face) : box.x,
        box.y,
        width * 0.4 * (1 - Math.abs(face)),
        size,
      );
      break;
    case "toy":
      g.arc(x, y - 0.3 * size, 0.3 * size, 0, 7);
      g.arc(x, y - 0.72 * size, 0.26 * size, 0, 7);
      g.moveTo(x, y);
      g.arc(x - 0.26 * size * face, y - 0.9 * size, 0.1 * size, 0, 7);
      g.arc(x + 0.26 * size * face, y - 0.9 * size, 0.1 * size, 0, 7);
      fillWith(g, shifted, box);
      break;
    case "lamp":
      g.moveTo(x - 0.14 * size, y - size);
      g.lineTo(x + 0.14 * size, y - size);
      g.lineTo(x + 0.3 * size, y - 0.55 * size);
      g.lineTo(x - 0.3 * size, y - 0.55 * size);
      fillWith(g, shifted, box);
      g.fillStyle = "#4a453d";
      g.fillRect(x - 0.03 * size, y - 0.55 * size, 0.06 * size, 0.5 * size);
      g.fillRect(x - 0.2 * size, y - 0.06 * size, 0.4 * size, 0.06 * size);
      break;
  }
  return box;
}

/** An arm that comes in from the picture's edge and holds what is at its end; its sleeve is plain or striped. */
export function drawArm(
  g: SKRSContext2D,
  from: { x: number; y: number },
  to: { x: number; y: number },
  thick: number,
  { skin, sleeve, striped }: { skin: string; sleeve: string; striped: boolean },
): void {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const length = Math.hypot(dx, dy);
  g.save();
  g.translate(from.x, from.y);
  g.rotate(Math.atan2(dy, dx));
  const round = g.createLinearGradient(0, -thick / 2, 0, thick / 2);
  round.addColorStop(0, skin);
  round.addColorStop(1, "#5d3f2b");
  g.fillStyle = round;
  g.beginPath();
  g.roundRect(length * 0.5, -0.38 * thick, length * 0.52, 0.76 * thick, 0.3 * thick);
  g.fill();
  for (const finger of [-0.3, -0.1, 0.1, 0.3]) {
    g.beginPath();
    g.ellipse(length + 0.1 * thick, finger * thick, 0.42 * thick, 0.11 * thick, 0, 0, 7);
    g.fill();
  }
  const cloth = g.createLinearGradient(0, -thick / 2, 0, thick / 2);
  cloth.addColorStop(0, sleeve);
  cloth.addColorStop(1, "#1f2228");
  g.fillStyle = cloth;
  g.fillRect(-thick, -0.55 * thick, thick + length * 0.6, 1.1 * thick);
  if (striped) {
    g.fillStyle = "rgba(240,240,235,0.75)";
    for (let at = 0; at < length * 0.6; at += 0.35 * thick) g.fillRect(at, -0.55 * thick, 0.13 * thick, 1.1 * thick);
  }
  g.restore();
}

export interface Creature {
  body: string;
  belly: string;
  ears: "long" | "round" | "none";
  /** Lines of a drawing around it. */
  outlined: boolean;
}

/**
 * A creature as a cartoon has it, on its feet.
 *
 * @param facing 1 to the right, -1 to the left
 * @returns all of it, and its head
 */
export function drawCreature(
  g: SKRSContext2D,
  creature: Creature,
  { x, y, size, facing, step }: { x: number; y: number; size: number; facing: number; step: number },
): { box: Box; head: Box } {
  const unit = size / 100;
  g.save();
  g.translate(x, y);
  g.scale(unit * facing, unit);
  g.lineWidth = 2.2;
  g.strokeStyle = "#1c1612";
  const part = (fill: string, path: () => void) => {
    g.beginPath();
    path();
    g.fillStyle = fill;
    g.fill();
    if (creature.outlined) g.stroke();
  };
  const bob = 2 * Math.sin(2 * step);
  for (const [leg, phase] of [
    [-20, 0],
    [14, Math.PI],
  ] as const) {
    part(creature.body, () => g.ellipse(leg + 9 * Math.sin(step + phase), -7, 11, 8, 0, 0, 7));
  }
  part(creature.body, () => g.ellipse(-34, -30, 13, 9, 0.7, 0, 7));
  part(creature.body, () => g.ellipse(-4, -36 + bob, 30, 33, 0, 0, 7));
  part(creature.belly, () => g.ellipse(8, -30 + bob, 16, 22, 0, 0, 7));
  if (creature.ears === "long") {
    part(creature.body, () => g.ellipse(8, -100 + bob, 6, 17, -0.25, 0, 7));
    part(creature.body, () => g.ellipse(24, -100 + bob, 6, 17, 0.2, 0, 7));
  } else if (creature.ears === "round") {
    part(creature.body, () => g.ellipse(2, -92 + bob, 9, 9, 0, 0, 7));
    part(creature.body, () => g.ellipse(28, -92 + bob, 9, 9, 0, 0, 7));
  }
  part(creature.body, () => g.ellipse(16, -74 + bob, 24, 21, 0, 0, 7));
  part(creature.belly, () => g.ellipse(32, -68 + bob, 12, 9, 0, 0, 7));
  part("#fbfbf5", () => g.ellipse(20, -80 + bob, 6.5, 8, 0, 0, 7));
  part("#191613", () => g.ellipse(22, -79 + bob, 2.8, 4, 0, 0, 7));
  part("#2b1a16", () => g.ellipse(43, -71 + bob, 3.4, 2.8, 0, 0, 7));
  g.restore();
  const across = (left: number, right: number, top: number, bottom: number): Box => ({
    x: x + unit * (facing > 0 ? left : -right),
    y: y + unit * top,
    width: unit * (right - left),
    height: unit * (bottom - top),
  });
  const top = { long: -117, round: -102, none: -96 }[creature.ears];
  return { box: across(-46, 47, top, 1), head: across(-8, 47, top, -52) };
}
