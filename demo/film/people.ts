/**
 * The people of Ferrow, drawn. Heads are drawn in units of a hundredth of the head's height (chin to
 * crown), figures in units of a hundred-and-eightieth of the body's height; both return where they are.
 */
import type { SKRSContext2D } from "@napi-rs/canvas";

export interface Person {
  id: string;
  name: string;
  skin: string;
  hair: string;
  hairStyle: "short" | "long" | "bun" | "cap" | "bald";
  beard?: boolean;
  glasses?: boolean;
  shirt: string;
  trousers: string;
}

export const PEOPLE = {
  nela: {
    id: "nela",
    name: "Nela Orbin",
    skin: "#e2ab86",
    hair: "#5a2e1b",
    hairStyle: "long",
    shirt: "#b8433a",
    trousers: "#2f3440",
  },
  bram: {
    id: "bram",
    name: "Bram Tolliver",
    skin: "#c98f68",
    hair: "#2a1c15",
    hairStyle: "short",
    beard: true,
    shirt: "#3f6b4f",
    trousers: "#3a3128",
  },
  ilse: {
    id: "ilse",
    name: "Ilse Marrow",
    skin: "#eabf9f",
    hair: "#8d8a86",
    hairStyle: "bun",
    glasses: true,
    shirt: "#5a5f9c",
    trousers: "#26262c",
  },
  teo: {
    id: "teo",
    name: "Teo Vance",
    skin: "#8d5b3d",
    hair: "#17110d",
    hairStyle: "short",
    shirt: "#d9a43b",
    trousers: "#31465e",
  },
  wren: {
    id: "wren",
    name: "Wren Adlai",
    skin: "#dba57d",
    hair: "#c08a45",
    hairStyle: "bun",
    shirt: "#2f8a8f",
    trousers: "#4a3a55",
  },
  oskar: {
    id: "oskar",
    name: "Oskar Penn",
    skin: "#e6b592",
    hair: "#6e6e70",
    hairStyle: "cap",
    beard: true,
    shirt: "#6b4a3a",
    trousers: "#2d3a33",
  },
} satisfies Record<string, Person>;

/** [x, y, width, height] in pixels. */
export type Box = [number, number, number, number];

export interface HeadPose {
  /** Turn of the head, -1 (left) to 1 (right). */
  yaw?: number;
  /** Tilt in radians. */
  tilt?: number;
  /** 0 closed to 1 open. */
  mouth?: number;
  blink?: number;
}

/** A colour with its channels multiplied, for light and shade. */
export function shade(hex: string, factor: number): string {
  const value = Number.parseInt(hex.slice(1), 16);
  const channel = (shift: number) => Math.max(0, Math.min(255, Math.round(((value >> shift) & 255) * factor)));
  return `rgb(${channel(16)},${channel(8)},${channel(0)})`;
}

function ellipse(g: SKRSContext2D, x: number, y: number, rx: number, ry: number, fill: string, turn = 0): void {
  g.beginPath();
  g.ellipse(x, y, rx, ry, turn, 0, Math.PI * 2);
  g.fillStyle = fill;
  g.fill();
}

/** An ellipse that fades out towards its edge, for shadows and blush. */
function glow(g: SKRSContext2D, x: number, y: number, rx: number, ry: number, colour: string, alpha: number): void {
  g.save();
  g.translate(x, y);
  g.scale(1, ry / rx);
  const soft = g.createRadialGradient(0, 0, 0, 0, 0, rx);
  soft.addColorStop(0, colour);
  soft.addColorStop(1, "rgba(0,0,0,0)");
  g.globalAlpha = alpha;
  g.fillStyle = soft;
  g.fillRect(-rx, -rx, 2 * rx, 2 * rx);
  g.restore();
}

function curve(g: SKRSContext2D, points: number[], width: number, colour: string): void {
  const [x0, y0, cx, cy, x1, y1] = points as [number, number, number, number, number, number];
  g.beginPath();
  g.moveTo(x0, y0);
  g.quadraticCurveTo(cx, cy, x1, y1);
  g.lineWidth = width;
  g.lineCap = "round";
  g.strokeStyle = colour;
  g.stroke();
}

function faceOutline(g: SKRSContext2D): void {
  g.beginPath();
  g.moveTo(-35, -16);
  g.bezierCurveTo(-37, 12, -31, 32, -16, 44);
  g.bezierCurveTo(-7, 50.5, 7, 50.5, 16, 44);
  g.bezierCurveTo(31, 32, 37, 12, 35, -16);
  g.bezierCurveTo(33, -45, -33, -45, -35, -16);
  g.closePath();
}

function drawEye(g: SKRSContext2D, x: number, person: Person, yaw: number, blink: number): void {
  const y = -5;
  const open = 4.6 * (1 - blink);
  if (open < 1) return curve(g, [x - 8, y + 0.5, x, y + 3, x + 8, y + 0.5], 1.8, "#3a2218");
  g.save();
  g.beginPath();
  g.moveTo(x - 8.4, y + 0.6);
  g.quadraticCurveTo(x, y - open * 1.9, x + 8.4, y);
  g.quadraticCurveTo(x, y + open * 1.6, x - 8.4, y + 0.6);
  g.fillStyle = "#f3eee7";
  g.fill();
  g.clip();
  ellipse(g, x + yaw * 2.4, y - 0.3, 4.2, 4.2, shade(person.hair, 0.9));
  ellipse(g, x + yaw * 2.4, y - 0.3, 2.1, 2.1, "#0c0806");
  ellipse(g, x + yaw * 2.4 - 1.4, y - 1.8, 1, 1, "#ffffff");
  g.restore();
  curve(g, [x - 8.4, y + 0.6, x, y - open * 1.9, x + 8.4, y], 1.8, "#2b1810");
  curve(g, [x - 7, y + 1.8, x, y + open * 1.8, x + 7, y + 1.4], 0.7, shade(person.skin, 0.6));
}

function drawMouth(g: SKRSContext2D, x: number, open: number): void {
  const gap = open * 9;
  const y = 28;
  if (gap > 0.6) {
    ellipse(g, x, y + gap * 0.35, 10, 1.5 + gap * 0.9, "#471613");
    g.save();
    g.clip();
    g.fillStyle = "#efe8df";
    g.fillRect(x - 8, y - gap * 0.6 - 2, 16, 3.4);
    g.restore();
  }
  g.fillStyle = "#a9534b";
  g.beginPath();
  g.moveTo(x - 12, y - gap * 0.2);
  g.quadraticCurveTo(x - 5, y - 4.6 - gap * 0.6, x, y - 2.6 - gap * 0.6);
  g.quadraticCurveTo(x + 5, y - 4.6 - gap * 0.6, x + 12, y - gap * 0.2);
  g.quadraticCurveTo(x, y - gap * 0.6, x - 12, y - gap * 0.2);
  g.fill();
  g.beginPath();
  g.moveTo(x - 12, y);
  g.quadraticCurveTo(x, y + 0.4 + gap * 1.3, x + 12, y);
  g.quadraticCurveTo(x, y + 7.4 + gap * 1.6, x - 12, y);
  g.fill();
}

function drawHair(g: SKRSContext2D, person: Person): void {
  const light = g.createLinearGradient(0, -54, 0, 4);
  light.addColorStop(0, shade(person.hair, 1.35));
  light.addColorStop(1, person.hair);
  if (person.hairStyle === "bald") return;
  g.fillStyle = light;
  if (person.hairStyle === "bun") ellipse(g, 0, -55, 15, 13, person.hair);
  g.beginPath();
  g.moveTo(-37.5, 4);
  g.bezierCurveTo(-45, -40, -26, -55, 0, -55);
  g.bezierCurveTo(26, -55, 45, -40, 37.5, 4);
  g.bezierCurveTo(36, -9, 34, -17, 30, -22);
  g.bezierCurveTo(18, -26, 8, -33, 1, -31);
  g.bezierCurveTo(-11, -28, -22, -29, -30, -21);
  g.bezierCurveTo(-34, -15, -36, -7, -37.5, 4);
  g.fillStyle = light;
  g.fill();
  if (person.hairStyle === "cap") {
    g.beginPath();
    g.moveTo(-39, -18);
    g.bezierCurveTo(-38, -62, 38, -62, 39, -18);
    g.quadraticCurveTo(0, -32, -39, -18);
    g.fillStyle = "#39434d";
    g.fill();
    curve(g, [-40, -18, 0, -33, 40, -18], 5, "#2c343c");
  }
}

/** Draws a head of height `size` centred at (x, y); returns the face's box (brow line's hair to chin). */
export function drawHead(
  g: SKRSContext2D,
  x: number,
  y: number,
  size: number,
  person: Person,
  pose: HeadPose = {},
): Box {
  const { yaw = 0, tilt = 0, mouth = 0, blink = 0 } = pose;
  const shift = yaw * 14;
  const dark = shade(person.skin, 0.68);
  g.save();
  g.translate(x, y);
  g.rotate(tilt);
  g.scale(size / 100, size / 100);
  if (person.hairStyle === "long") {
    g.beginPath();
    g.moveTo(-39, -12);
    g.bezierCurveTo(-49, 30, -46, 60, -36, 74);
    g.lineTo(36, 74);
    g.bezierCurveTo(46, 60, 49, 30, 39, -12);
    g.fillStyle = shade(person.hair, 0.75);
    g.fill();
  }
  const neck = g.createLinearGradient(0, 34, 0, 74);
  neck.addColorStop(0, shade(person.skin, 0.55));
  neck.addColorStop(1, shade(person.skin, 0.92));
  g.fillStyle = neck;
  g.fillRect(-15, 30, 30, 44);
  for (const side of [-1, 1]) ellipse(g, side * 36 + shift * 0.2, 2, 6, 11, shade(person.skin, 0.8));
  faceOutline(g);
  const light = g.createRadialGradient(-8 + shift, -12, 6, 0, 2, 58);
  light.addColorStop(0, shade(person.skin, 1.13));
  light.addColorStop(0.5, person.skin);
  light.addColorStop(1, dark);
  g.fillStyle = light;
  g.fill();
  g.save();
  g.clip();
  for (const side of [-1, 1]) {
    glow(g, side * 17 + shift, -7, 17, 11, dark, 0.55);
    glow(g, side * 23 + shift * 0.7, 17, 14, 10, "#d0594a", 0.3);
    glow(g, side * 36, 14, 17, 40, dark, 0.6);
  }
  glow(g, shift, 48, 30, 12, dark, 0.5);
  if (person.beard) {
    g.globalAlpha = 0.85;
    ellipse(g, shift * 0.8, 44, 27, 18, person.hair);
    ellipse(g, shift, 21, 14, 4.5, person.hair);
  }
  g.restore();
  for (const side of [-1, 1]) {
    drawEye(g, side * 16 + shift, person, yaw, blink);
    curve(
      g,
      [side * 8.5 + shift, -15.5, side * 18 + shift, -20, side * 26.5 + shift, -15],
      3.2,
      shade(person.hair, 0.9),
    );
  }
  if (person.glasses) {
    g.strokeStyle = "#2b2b2f";
    g.lineWidth = 1.8;
    for (const side of [-1, 1]) {
      g.beginPath();
      g.ellipse(side * 16 + shift, -4, 12, 9.5, 0, 0, Math.PI * 2);
      g.stroke();
    }
    curve(g, [-4 + shift, -5, shift, -7, 4 + shift, -5], 1.8, "#2b2b2f");
  }
  const nose = shift * 1.35;
  g.globalAlpha = 0.2;
  g.beginPath();
  g.moveTo(nose - 3, -6);
  g.quadraticCurveTo(nose - 7, 10, nose - 8.5, 15);
  g.quadraticCurveTo(nose, 20, nose + 8.5, 15);
  g.quadraticCurveTo(nose + 6, 12, nose + 2, -6);
  g.fillStyle = dark;
  g.fill();
  g.globalAlpha = 1;
  glow(g, nose, 8, 4, 12, shade(person.skin, 1.2), 0.8);
  for (const side of [-1, 1]) ellipse(g, nose + side * 4, 16.6, 2.3, 1.3, "#6e3d2b");
  drawMouth(g, shift * 1.1, mouth);
  drawHair(g, person);
  g.restore();
  const scale = size / 100;
  const centreX = x + (shift * 0.25 - Math.sin(tilt) * 5) * scale;
  return [centreX - 36 * scale, y - 40 * scale, 72 * scale, 89 * scale];
}

/** A limb through three joints, thinner towards the end, shaded on both sides. */
function limb(g: SKRSContext2D, joints: [number, number][], from: number, to: number, colour: string): void {
  for (let i = 0; i + 1 < joints.length; i++) {
    const [x0, y0] = joints[i]!;
    const [x1, y1] = joints[i + 1]!;
    const w0 = from + ((to - from) * i) / (joints.length - 1);
    const w1 = from + ((to - from) * (i + 1)) / (joints.length - 1);
    const across = Math.atan2(y1 - y0, x1 - x0) + Math.PI / 2;
    const c = Math.cos(across);
    const s = Math.sin(across);
    const gradient = g.createLinearGradient(x0 - c * w0, y0 - s * w0, x0 + c * w0, y0 + s * w0);
    gradient.addColorStop(0, shade(colour, 0.62));
    gradient.addColorStop(0.55, shade(colour, 1.06));
    gradient.addColorStop(1, shade(colour, 0.72));
    g.fillStyle = gradient;
    g.beginPath();
    g.arc(x0, y0, w0, across, across + Math.PI);
    g.lineTo(x1 - c * w1, y1 - s * w1);
    g.arc(x1, y1, w1, across + Math.PI, across);
    g.closePath();
    g.fill();
  }
}

export interface FigurePose extends HeadPose {
  /** Phase of the walk in radians; left out, the person stands. */
  step?: number;
  /** How much of a walk it is, 0 standing to 1; 1 where there is a phase. In between, someone sets off or halts. */
  walk?: number;
  /** 1 walking to 2 running: how wide the legs and arms swing. */
  stride?: number;
  /** Direction of travel, -1 or 1. */
  facing?: number;
  /** How far each arm is raised, 0 to 1. */
  leftArm?: number;
  rightArm?: number;
}

export interface FigureBoxes {
  face: Box;
  body: Box;
  /** Where the raised (right) hand is, for the kite's line. */
  hand: [number, number];
}

/** Draws a whole figure of height `size` standing at (x, footY). */
export function drawFigure(
  g: SKRSContext2D,
  x: number,
  footY: number,
  size: number,
  person: Person,
  pose: FigurePose = {},
): FigureBoxes {
  const { step = 0, stride = 1, facing = 1, leftArm = 0, rightArm = 0 } = pose;
  const { walk = pose.step === undefined ? 0 : 1 } = pose;
  const unit = size / 180;
  const swing = walk * Math.sin(step) * stride;
  const bob = -walk * Math.abs(Math.cos(step)) * 3 * stride;
  const lean = walk * facing * (stride - 1) * 9;
  const hipY = -92 + bob;
  const shoulderY = -146 + bob;
  let hand: [number, number] = [0, 0];
  g.save();
  g.translate(x, footY);
  g.scale(unit, unit);
  g.globalAlpha = 0.28;
  ellipse(g, 4, 2, 36, 5, "#101408");
  g.globalAlpha = 1;
  const leg = (side: number, s: number) => {
    const forward = s * facing;
    const hip: [number, number] = [side * 9, hipY];
    const knee: [number, number] = [side * 9 + forward * 15, hipY + 45];
    const ankle: [number, number] = [
      side * 9 + forward * 26 - (s < 0 ? facing * 8 * stride * Math.min(1, -3 * s) : 0),
      -5 - (s > 0 ? 0 : Math.abs(s) * 9),
    ];
    limb(g, [hip, knee, ankle], 10.5, 6, person.trousers);
    ellipse(g, ankle[0] + side * 3 + walk * (facing * 5 - side * 3), ankle[1] + 1.5, 10, 4.6, "#1d1a18");
  };
  const arm = (side: number, s: number, raise: number) => {
    const shoulder: [number, number] = [side * 21 + lean, shoulderY + 6];
    // An arm that is being raised leaves its swing little by little.
    const raised = Math.min(1, raise / 0.2);
    const between = (swung: number, held: number) => swung + (held - swung) * raised;
    const upper = Math.PI / 2 - between(s * facing * 0.5 + side * 0.14, side * raise * 2.2);
    const elbow: [number, number] = [shoulder[0] + Math.cos(upper) * 30, shoulder[1] + Math.sin(upper) * 30];
    const lower = upper - between(facing * (Math.abs(s) * 0.5 + 0.08), side * raise * 0.5);
    const wrist: [number, number] = [elbow[0] + Math.cos(lower) * 28, elbow[1] + Math.sin(lower) * 28];
    limb(g, [shoulder, elbow], 8.4, 6.6, person.shirt);
    limb(g, [elbow, wrist], 5.6, 4.2, person.skin);
    ellipse(g, wrist[0] + Math.cos(lower) * 4, wrist[1] + Math.sin(lower) * 4, 5.4, 5.4, person.skin);
    if (side > 0) hand = [x + wrist[0] * unit, footY + wrist[1] * unit];
  };
  arm(-1, -swing, leftArm);
  leg(-1, swing);
  leg(1, -swing);
  const cloth = g.createLinearGradient(-26, 0, 26, 0);
  cloth.addColorStop(0, shade(person.shirt, 0.6));
  cloth.addColorStop(0.4, shade(person.shirt, 1.1));
  cloth.addColorStop(1, shade(person.shirt, 0.66));
  g.fillStyle = cloth;
  g.beginPath();
  g.moveTo(-10 + lean, shoulderY - 4);
  g.bezierCurveTo(-22 + lean, shoulderY - 2, -27 + lean, shoulderY + 2, -28 + lean, shoulderY + 10);
  g.lineTo(-19, hipY - 20);
  g.lineTo(-20, hipY + 6);
  g.quadraticCurveTo(0, hipY + 11, 20, hipY + 6);
  g.lineTo(19, hipY - 20);
  g.lineTo(28 + lean, shoulderY + 10);
  g.bezierCurveTo(27 + lean, shoulderY + 2, 22 + lean, shoulderY - 2, 10 + lean, shoulderY - 4);
  g.fill();
  arm(1, swing, rightArm);
  g.restore();
  const face = drawHead(g, x + lean * 1.4 * unit, footY - (163 - bob) * unit, 30 * unit, person, pose);
  const reach = (20 + 12 * stride) * unit;
  const top = footY - (180 - bob) * unit;
  return { face, body: [x - reach + lean * 0.5 * unit, top, 2 * reach, footY + 4 * unit - top], hand };
}

/** Head and shoulders of a person who sits or stands near the lens; `size` is the head's height. */
export function drawBust(
  g: SKRSContext2D,
  x: number,
  y: number,
  size: number,
  person: Person,
  pose: HeadPose = {},
): { face: Box; body: Box } {
  const unit = size / 100;
  const breathing = (pose.tilt ?? 0) * 20;
  g.save();
  g.translate(x, y);
  g.scale(unit, unit);
  const cloth = g.createLinearGradient(-110, 60, 120, 200);
  cloth.addColorStop(0, shade(person.shirt, 0.8));
  cloth.addColorStop(0.35, shade(person.shirt, 1.12));
  cloth.addColorStop(1, shade(person.shirt, 0.5));
  g.fillStyle = cloth;
  g.beginPath();
  g.moveTo(-18, 58);
  g.bezierCurveTo(-46, 66, -80, 72, -92, 108);
  g.bezierCurveTo(-102, 150, -106, 230, -108, 330);
  g.lineTo(108, 330);
  g.bezierCurveTo(106, 230, 102, 150, 92, 108);
  g.bezierCurveTo(80, 72, 46, 66, 18, 58);
  g.quadraticCurveTo(0, 88, -18, 58);
  g.fill();
  for (const side of [-1, 1]) curve(g, [side * 74, 330, side * 66, 190, side * 82, 132], 2.5, shade(person.shirt, 0.5));
  curve(g, [-22, 60, 0, 96, 22, 60], 5, shade(person.shirt, 0.62));
  g.restore();
  const face = drawHead(g, x + breathing * unit, y, size, person, pose);
  return { face, body: [x - 108 * unit, y - 56 * unit, 216 * unit, 386 * unit] };
}
