import { describe, expect, test } from "@jest/globals";
import { texture, yuvPicture } from "../../../../tests/support/yuv-picture";
import { boxIou, type Box } from "../../geometry/box";
import { greyPyramid } from "../../image/grey-pyramid";
import { cameraMotion, STILL } from "./camera-motion";
import { FlowPropagator } from "./propagate";
import type { Detection } from "./detection";
import { mayBeArm } from "./held-thing";
import { movingThings } from "./moving";
import { opticalFlow } from "./optical-flow";

const [WIDTH, HEIGHT] = [320, 180];

interface View {
  panX?: number;
  panY?: number;
  zoom?: number;
  /** Left edge of a square thing of 80 pixels. */
  thing?: number;
  /** Top edge of a blue thing of 30 × 40 pixels, and where the brown bar that holds it ends on the right. */
  held?: number;
  armTo?: number;
}

/** A textured wall seen by a camera, with a square of another texture before it. */
const view = ({ panX = 0, panY = 0, zoom = 1, thing, held, armTo = WIDTH }: View) =>
  yuvPicture(WIDTH, HEIGHT, (x, y) => {
    if (held !== undefined) {
      const light = 40 * texture(x, y - held, 5);
      if (x >= 110 && x < 140 && y >= held && y < held + 40) return [40 + light, 70 + light, 210 + light];
      if (x >= 140 && x < armTo && Math.abs(y - held - 20 - 0.1 * (x - 110)) < 9) return [190 + light, 140, 100];
    }
    if (thing !== undefined && x >= thing && x < thing + 80 && y >= 50 && y < 130) {
      const value = 150 + 180 * texture(x - thing + 1000, y, 11);
      return [value, value, 0.8 * value];
    }
    const u = (x - WIDTH / 2) / zoom + WIDTH / 2 + panX;
    const v = (y - HEIGHT / 2) / zoom + HEIGHT / 2 + panY;
    const value = 120 + 140 * texture(u, v, 8) + 50 * texture(u, v, 31);
    return [value, value, value];
  });

function between(before: View, after: View) {
  const image = view(after);
  const [a, b] = [greyPyramid(view(before)), greyPyramid(image)];
  const flow = opticalFlow(a, b);
  return { before: a[0]!, now: b[0]!, camera: cameraMotion(flow, a[0]!), size: a[0]!, image };
}

describe("the camera's motion", () => {
  test("is found in a pan, to a fraction of a sample, however far within reach", () => {
    for (const [x, y] of [
      [3, 1],
      [20, -4],
      [0.8, 0],
    ] as const) {
      const { camera } = between({}, { panX: x, panY: y });
      // The flow's plane has half the samples.
      expect(camera.tx).toBeCloseTo(-x / 2, 0);
      expect(Math.abs(camera.tx + x / 2)).toBeLessThan(0.25);
      expect(Math.abs(camera.ty + y / 2)).toBeLessThan(0.25);
      expect(camera.share).toBeGreaterThan(0.8);
    }
  });

  test("is found in a zoom, around the middle", () => {
    const { camera, size } = between({}, { zoom: 1.05 });
    expect(camera.a).toBeCloseTo(1.05, 2);
    expect(camera.a * (size.width / 2) + camera.tx).toBeCloseTo(size.width / 2, 0);
  });

  test("is not that of a large thing that moves before it", () => {
    const { camera } = between({ panX: 0, thing: 100 }, { panX: 4, thing: 110 });
    expect(Math.abs(camera.tx + 2)).toBeLessThan(0.2);
  });

  test("is unknown over a cut", () => {
    const { camera } = between({}, { panX: 5000, panY: 3000 });
    expect(camera).toMatchObject({ ...STILL, share: camera.share });
    expect(camera.share).toBeLessThan(0.25);
  });
});

describe("points that are asked for", () => {
  const [a, b] = [greyPyramid(view({})), greyPyramid(view({ panX: 2.5, panY: 1 }))];

  test("are told by their groups, to a fraction of a sample", () => {
    const flow = opticalFlow(a, b, [[{ x: 40.3, y: 30.7 }], [{ x: 90, y: 50 }]]);
    expect([...flow.group].slice(flow.corners)).toEqual([0, 1]);
    for (let i = flow.corners; i < flow.count; i++) {
      expect(flow.dx[i]).toBeCloseTo(-1.25, 1);
      expect(flow.dy[i]).toBeCloseTo(-0.5, 1);
    }
  });

  test("are not found where there is no picture", () => {
    const nowhere = [
      { x: -3, y: 40 },
      { x: 1e12, y: 40 },
      { x: 40, y: -1e12 },
      { x: Number.NaN, y: 40 },
      { x: WIDTH / 2, y: HEIGHT / 2 },
    ];
    const flow = opticalFlow(a, b, [nowhere]);
    expect(flow.count).toBe(flow.corners);
    expect(flow.corners).toBeGreaterThan(50);
  });

  test("do not depend on larger pictures that were looked at before", () => {
    const large = greyPyramid(yuvPicture(4 * WIDTH, 4 * HEIGHT, (x, y) => [texture(x, y, 9) * 255, 90, 90]));
    const before = opticalFlow(a, b);
    opticalFlow(large, large);
    expect(opticalFlow(a, b)).toEqual(before);
  });
});

describe("what moves by itself", () => {
  test("is found before a camera that pans, with its edges", () => {
    const { before, now, camera, image } = between({ panX: 0, thing: 140 }, { panX: 3, thing: 145 });
    const found = movingThings(before, now, camera, image);
    expect(found).toHaveLength(1);
    expect(found[0]!.kind).toBe("motion");
    expect(boxIou(found[0]!.box, { x: 145, y: 50, width: 80, height: 80 })).toBeGreaterThan(0.6);
  });

  test("is one thing though its middle is even", () => {
    const plain = (x: number) => {
      const image = view({ panX: x / 5 });
      for (let y = 70; y < 110; y++) image.luma.fill(40, y * WIDTH + x, y * WIDTH + x + 36);
      return image;
    };
    const image = plain(106);
    const [before, now] = [greyPyramid(plain(100)), greyPyramid(image)];
    const found = movingThings(before[0]!, now[0]!, cameraMotion(opticalFlow(before, now), before[0]!), image);
    expect(boxIou(found[0]!.box, { x: 106, y: 70, width: 36, height: 40 })).toBeGreaterThan(0.4);
  });

  test("is the thing at the end of an arm that leads out of the picture, and all of what does not", () => {
    const moved = (armTo: number) => {
      const { before, now, camera, image } = between({ held: 57, armTo }, { held: 60, armTo });
      return movingThings(before, now, camera, image)[0]!;
    };
    const { box, withArm } = moved(WIDTH);
    expect(boxIou(box, { x: 110, y: 60, width: 30, height: 40 })).toBeGreaterThan(0.45);
    expect(withArm!.x + withArm!.width).toBeGreaterThan(290);
    const whole = moved(240);
    expect(whole.withArm).toBeUndefined();
    expect(whole.box.width).toBeGreaterThan(110);
  });

  test("may be an arm where it is long and narrow, and comes from the border of the picture", () => {
    const [columns, picture] = [38, { x: 0, y: 0, width: 38, height: 21 }];
    const cellsOf = ({ x, y, width, height }: Box) =>
      Array.from({ length: width * height }, (_, i) => (y + Math.floor(i / width)) * columns + x + (i % width));
    const isArm = (box: Box, within: Box = picture) => mayBeArm(cellsOf(box), columns, within);
    expect(isArm({ x: 20, y: 10, width: 17, height: 3 })).toBe(true);
    expect(isArm({ x: 10, y: 8, width: 17, height: 3 })).toBe(false);
    expect(isArm({ x: 28, y: 8, width: 9, height: 9 })).toBe(false);
    expect(isArm({ x: 35, y: 8, width: 3, height: 1 })).toBe(false);
    // Beside bars the picture's border is further in.
    expect(isArm({ x: 10, y: 8, width: 17, height: 3 }, { x: 10, y: 0, width: 18, height: 21 })).toBe(true);
  });

  test("is nothing where only the camera moves, or where the camera is not known", () => {
    for (const after of [{ panX: 9, panY: 2 }, { zoom: 1.04 }]) {
      const { before, now, camera, image } = between({}, after);
      expect(movingThings(before, now, camera, image)).toEqual([]);
      expect(movingThings(before, now, { ...camera, share: 0.3 }, image)).toEqual([]);
    }
  });
});

describe("carrying", () => {
  const seen = (x: number): Detection => ({ kind: "object", box: { x, y: 50, width: 80, height: 80 }, score: 0.8 });

  function carry(steps: number, at: (step: number) => number, again?: number) {
    const propagator = new FlowPropagator(8);
    const detection = seen(at(0));
    let image = view({ thing: at(0) });
    let before = greyPyramid(image);
    propagator.see([detection], image);
    for (let step = 1; step <= steps; step++) {
      image = view({ panX: 2 * step, thing: at(step) });
      const after = greyPyramid(image);
      propagator.advance(opticalFlow(before, after, propagator.points()), image);
      if (step === again) propagator.see([seen(at(step))], image);
      before = after;
    }
    return detection;
  }

  test("goes with the thing and not with what is behind it", () => {
    const { propagated } = carry(6, (step) => 100 + 7 * step);
    expect(propagated).toHaveLength(6);
    propagated!.forEach(({ x }, i) => expect(Math.abs(x - 100 - 7 * (i + 1))).toBeLessThan(4));
  });

  test("ends when the thing is seen anew, and when it has gone on for long", () => {
    expect(carry(6, (step) => 100 + 3 * step, 4).propagated).toHaveLength(4);
    expect(carry(12, () => 100).propagated).toHaveLength(8);
  });
});
