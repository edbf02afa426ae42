/** What a shot of the benchmark's films shows at a moment: a place, a camera over it, and who moves in it. */
import type { SKRSContext2D } from "@napi-rs/canvas";
import { ramp, wander } from "../../demo/film/random";
import { WORLD, world, type WorldKind } from "./worlds";

export const PICTURE = { width: 640, height: 360 };

export interface CameraMove {
  /** Pixels of the picture per second. */
  pan?: { x: number; y: number };
  /** Factor a second. */
  zoom?: number;
  /** Pixels that a hand shakes by. */
  shake?: number;
  /** A quick turn over `distance` pixels that starts at `at` and takes `seconds`. */
  whip?: { at: number; seconds: number; distance: number };
  /** A quick zoom by a factor. */
  punch?: { at: number; seconds: number; factor: number };
}

export interface Actor {
  kind: "walker" | "talker";
  /** Start, in pixels of the picture, of the middle of the head. */
  x: number;
  y: number;
  /** Height of the head in pixels. */
  head: number;
  /** Pixels a second. */
  speed: number;
  hue: number;
  /** How the head is held and what the arms do; another number is another moment of a talk. */
  pose: number;
}

export interface Scene {
  world: WorldKind;
  seed: number;
  side?: number;
  /** Where the camera starts, as a share of what it can reach. */
  at: { x: number; y: number };
  zoom: number;
  camera: CameraMove;
  actors: Actor[];
}

function drawActor(g: SKRSContext2D, actor: Actor, seconds: number): void {
  const h = actor.head;
  const sway = wander(seconds * 1.2, actor.pose + 1) * h * 0.12;
  const talking = actor.kind === "talker";
  const held = talking
    ? { x: Math.sin(actor.pose * 2.3) * h * 0.45, y: Math.cos(actor.pose * 3.1) * h * 0.14 }
    : { x: 0, y: 0 };
  const bob = talking ? 0 : Math.abs(Math.sin(seconds * 6)) * h * 0.12;
  const x = actor.x + actor.speed * seconds + sway + held.x;
  const y = actor.y - bob + held.y;
  g.fillStyle = `hsl(${actor.hue} 40% 35%)`;
  g.beginPath();
  g.roundRect(x - h * 1.05 - held.x * 0.4, y + h * 0.62, h * 2.1, h * 4, h * 0.5);
  g.fill();
  const swing = talking
    ? Math.sin(actor.pose * 5) * 0.9 + wander(seconds * 2, actor.pose) * 0.5
    : Math.sin(seconds * 6) * 0.7;
  g.lineWidth = h * 0.38;
  g.strokeStyle = `hsl(${actor.hue} 42% 30%)`;
  g.lineCap = "round";
  for (const side of [-1, 1]) {
    g.beginPath();
    g.moveTo(x + side * h * 0.9, y + h * 1.1);
    g.lineTo(x + side * h * (1.3 + 0.5 * swing), y + h * (2.4 - (talking ? side * swing : 0) * 0.8));
    g.stroke();
  }
  g.fillStyle = `hsl(${20 + (actor.hue % 17)} 45% ${45 + (actor.hue % 30)}%)`;
  g.beginPath();
  g.ellipse(x, y, h * 0.38, h * 0.5, 0, 0, 7);
  g.fill();
  g.fillStyle = `hsl(${actor.hue * 3} 30% 18%)`;
  g.beginPath();
  g.ellipse(x, y - h * 0.2, h * 0.42, h * 0.36, 0, Math.PI, 0);
  g.fill();
  for (const side of [-1, 1])
    g.fillRect(x + side * h * 0.16 - h * 0.05 + held.x * 0.1, y - h * 0.06, h * 0.1, h * 0.06);
  g.fillStyle = "#7a2f2f";
  g.fillRect(x - h * 0.12, y + h * 0.22, h * 0.24, h * (0.04 + 0.06 * Math.abs(Math.sin(seconds * 9 + actor.pose))));
}

/** Draws a moment of a scene, in seconds since the shot began. */
export function drawScene(g: SKRSContext2D, scene: Scene, seconds: number): void {
  const { camera } = scene;
  const { whip, punch } = camera;
  const turn = whip ? whip.distance * ramp(whip.at, whip.at + whip.seconds, seconds) : 0;
  const closer = punch ? punch.factor ** ramp(punch.at, punch.at + punch.seconds, seconds) : 1;
  const zoom = scene.zoom * closer * (camera.zoom ?? 1) ** seconds;
  const shake = camera.shake ?? 0;
  const hand = (rate: number, seed: number) =>
    shake * (wander(seconds * rate, seed) + 0.4 * wander(seconds * 4 * rate, seed + 5));
  const reach = { x: WORLD.width * zoom - PICTURE.width, y: WORLD.height * zoom - PICTURE.height };
  // The place repeats beyond its edges, mirrored, so that a quick turn never runs out of it.
  const left = scene.at.x * reach.x + (camera.pan?.x ?? 0) * seconds + turn + hand(1.9, scene.seed % 17);
  const top = scene.at.y * reach.y + (camera.pan?.y ?? 0) * seconds + hand(2.3, scene.seed % 23);
  const image = world(scene.world, scene.seed, scene.side);
  const [width, height] = [WORLD.width * zoom, WORLD.height * zoom];
  g.save();
  for (let column = Math.floor(left / width); column * width < left + PICTURE.width; column++) {
    for (let row = Math.floor(top / height); row * height < top + PICTURE.height; row++) {
      const flip = { x: column % 2 === 0 ? 1 : -1, y: row % 2 === 0 ? 1 : -1 };
      const x = column * width - left + (flip.x < 0 ? width : 0);
      const y = row * height - top + (flip.y < 0 ? height : 0);
      g.setTransform(flip.x * zoom, 0, 0, flip.y * zoom, x, y);
      g.drawImage(image, 0, 0);
    }
  }
  // People stand in the place: they shift with whatever the camera does beyond a steady pan, which follows them.
  g.setTransform(
    closer,
    0,
    0,
    closer,
    (1 - closer) * (PICTURE.width / 2) - turn - hand(1.9, scene.seed % 17),
    (1 - closer) * (PICTURE.height / 2) - hand(2.3, scene.seed % 23),
  );
  for (const actor of scene.actors) drawActor(g, actor, seconds);
  g.restore();
}

/** Pixels that the picture moves within one frame: how many moments a blurred frame has to average. */
export function speedAt({ camera }: Scene, seconds: number, frameSeconds: number): number {
  const { whip, punch } = camera;
  const during = (move?: { at: number; seconds: number }) =>
    move && seconds > move.at && seconds < move.at + move.seconds;
  const turning = during(whip) ? (1.5 * Math.abs(whip!.distance)) / whip!.seconds : 0;
  const closing = during(punch) ? (PICTURE.width * Math.abs(Math.log(punch!.factor))) / punch!.seconds : 0;
  const panning = Math.hypot(camera.pan?.x ?? 0, camera.pan?.y ?? 0);
  return (turning + closing + panning + 8 * (camera.shake ?? 0)) * frameSeconds;
}
