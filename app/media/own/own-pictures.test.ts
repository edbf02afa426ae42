import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { createCanvas } from "@napi-rs/canvas";
import { USUAL_BACKDROP } from "~/core/composition/backdrop";
import { PLAIN_EDGE } from "~/core/composition/edge";
import { layOut, WHOLE } from "~/core/composition/layout";
import { newPicture } from "~/core/composition/layers/layer";
import type { Picture } from "~/core/composition/picture";
import { shownIn, withLayers } from "~/core/composition/shown";
import { newPanePicture, STACK, withOwn } from "~/core/composition/stack";
import { EVERY_TEST } from "../../../tests/support/every-test";
import { LayerPainter } from "../layers/layer-painter.server";
import { Resampler } from "../resample/resampler.server";
import { loadPictures, NOTHING_OWN } from "./load-pictures.server";
import { animationToFilm, evenly, inSequence, isAnimatedWebp, sequenceToFilm } from "./moving/animation.server";
import { decodeRgba, openMoving, pictureOf } from "./moving/moving-file.server";

const FRAME = { width: 64, height: 128 };
const FILM = { width: 128, height: 64 };
const FPS = 25;
const RANGE = { start: 0, end: 40 };
/** How much lighter each frame of the clip is than the one before. */
const STEP = 4;

let folder: string;
const at = (name: string) => join(folder, name);
/** Twenty frames, each a little lighter; its middle is clear in what has alpha. */
const clip = (name: string, ...format: string[]) => {
  const lum = `geq=lum='40+${STEP}*N':cb=128:cr=128`;
  const hole = "format=yuva444p,geq=lum='lum(X,Y)':cb=128:cr=128:a='if(between(X,24,39),0,255)'";
  const alpha = format.some((option) => option.includes("yuva")) ? `,${hole}` : "";
  const source = `color=black:s=64x64:r=${FPS}:d=0.8,format=yuv444p,${lum}${alpha}`;
  const tags = ["-colorspace", "bt709", "-color_range", "tv"];
  execFileSync("ffmpeg", ["-v", "error", "-y", "-f", "lavfi", "-i", source, ...format, ...tags, at(name)]);
  return at(name);
};

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-own-"));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** What a version shows of frames of a black film: the luma of a pixel of each. */
async function lumaOf(
  picture: Picture,
  file: string,
  shown: ReturnType<typeof shownIn>,
  frames: readonly number[],
  x: number,
  y: number,
): Promise<number[]> {
  const own = await loadPictures({ ...NOTHING_OWN, moving: new Map([[picture.id, file]]) }, FRAME);
  const resampler = new Resampler(FILM, FRAME, { panes: 3, pictures: own });
  resampler.source.fill(16, 0, FILM.width * FILM.height);
  resampler.source.fill(128, FILM.width * FILM.height);
  const painter = new LayerPainter(resampler, own);
  const seen: number[] = [];
  for (const frame of frames) {
    const composition = shown(frame);
    await own.prepare(composition);
    resampler.compose(composition);
    painter.paint(composition);
    seen.push(resampler.target[y * FRAME.width + x]!);
  }
  await own.close();
  return seen;
}

const shownWith = (settings: Parameters<typeof layOut>[0]) => {
  const windows = Array.from({ length: RANGE.end }, () => ({ x: 64, y: 32, height: 64 }));
  const laidOut = layOut(settings, { x: 0, y: 0, ...FILM }, FRAME);
  return shownIn([{ range: RANGE, windows, others: [{ windows }], laidOut }], FRAME, FPS);
};
const USUAL = { layout: WHOLE, backdrop: USUAL_BACKDROP, edge: PLAIN_EDGE };
const lumas = (frames: readonly number[]) => frames.map((frame) => 40 + STEP * frame);
const near = (seen: readonly number[], wanted: readonly number[], by = 2) =>
  expect(Math.max(...seen.map((value, i) => Math.abs(value - wanted[i]!)))).toBeLessThanOrEqual(by);

describe("a film that is placed", () => {
  let picture: Picture;
  let file: string;
  beforeAll(async () => {
    file = clip("clip.mp4", "-c:v", "libx264", "-qp", "4", "-pix_fmt", "yuv420p");
    picture = pictureOf(await openMoving(file, "clip.mp4"), "a".repeat(32));
    expect(picture.moving).toEqual({ frames: 20, rate: { num: FPS, den: 1 }, sound: false });
  });

  test("runs in a pane from its in point, and stands at its end", async () => {
    const own = { ...newPanePicture(picture), playback: { from: 3, speed: 1, loops: false } };
    const shown = shownWith({ ...USUAL, layout: withOwn(STACK, 1, own) });
    near(await lumaOf(picture, file, shown, [0, 1, 2, 10, 16, 17, 30], 32, 96), lumas([3, 4, 5, 13, 19, 19, 19]));
    // The film in the pane above is as it was.
    near(await lumaOf(picture, file, shown, [5], 32, 30), [16]);
  });

  test("loops behind the film, as slowly as is said", async () => {
    const playback = { from: 0, speed: 0.5, loops: true };
    const backdrop = { kind: "picture" as const, picture, fit: "fill" as const, colour: "#000000", playback };
    const shown = shownWith({ ...USUAL, backdrop });
    near(await lumaOf(picture, file, shown, [0, 1, 2, 8, 39], 32, 8), lumas([0, 0, 1, 4, 19]));
    const quick = shownWith({ ...USUAL, backdrop: { ...backdrop, playback: { ...playback, speed: 4 } } });
    near(await lumaOf(picture, file, quick, [1, 4, 5, 6], 32, 8), lumas([4, 16, 0, 4]));
  });

  test("begins at its own place in a shot, whatever was asked for before", async () => {
    const shown = shownWith({ ...USUAL, layout: withOwn(STACK, 1, newPanePicture(picture)) });
    near(await lumaOf(picture, file, shown, [12, 3, 3, 15], 32, 96), lumas([12, 3, 3, 15]));
  });
});

describe("a picture that moves and can be seen through", () => {
  const FORMATS: [string, string, string[]][] = [
    ["ProRes 4444", "clip.mov", ["-c:v", "prores_ks", "-profile:v", "4444", "-pix_fmt", "yuva444p10le"]],
    ["VP9", "clip.webm", ["-c:v", "libvpx-vp9", "-pix_fmt", "yuva420p", "-crf", "4", "-b:v", "0"]],
  ];
  // Only the long run finds that the alpha of VP9, which has a decoder of its own, is lost.
  test.each(FORMATS.slice(0, EVERY_TEST ? FORMATS.length : 1))(
    "of %s lies over the film as a layer",
    async (_, name, format) => {
      const file = clip(name, ...format);
      const picture = pictureOf(await openMoving(file, name), "b".repeat(32));
      const layer = { ...newPicture("one", picture), width: 1, x: 0.5, y: 0.5, arrives: "cut", leaves: "cut" } as const;
      const kept = [RANGE];
      const above = { layers: [layer], safeArea: null, size: FRAME, kept, fps: FPS };
      const shown = withLayers(shownWith({ ...USUAL, layout: { kind: "fill" } }), above);
      const frames = [0, 1, 7, 19, 20, 33];
      near(await lumaOf(picture, file, shown, frames, 8, 64), lumas([0, 1, 7, 19, 0, 13]), 4);
      near(await lumaOf(picture, file, shown, frames, 32, 64), [16, 16, 16, 16, 16, 16], 3);
    },
  );
});

describe("animations and sequences", () => {
  const drawn = (level: number) => {
    const canvas = createCanvas(48, 40);
    const context = canvas.getContext("2d");
    context.fillStyle = `rgb(${level} ${level} ${level})`;
    context.fillRect(0, 0, 24, 40);
    return canvas.toBuffer("image/png");
  };
  const reds = async (file: string) => {
    const moving = await openMoving(file, "row.mov");
    const seen: number[][] = [];
    for await (const frame of decodeRgba(moving, moving.info.picture, { start: 0, end: moving.info.frames })) {
      seen.push([frame[0]!, frame[3]!, frame[4 * 40 + 3]!]);
    }
    return { seen, rate: moving.info.rate };
  };

  test("PNG files in a row are frames in the order of their numbers", async () => {
    const files = [10, 2, 1].map((n) => ({ name: `kite${n}.png`, bytes: drawn(20 * n) }));
    await sequenceToFilm(inSequence(files), { num: 30, den: 1 }, at("row.mov"));
    const { seen, rate } = await reds(at("row.mov"));
    expect(rate).toEqual({ num: 30, den: 1 });
    expect(seen).toEqual([
      [20, 255, 0],
      [40, 255, 0],
      [200, 255, 0],
    ]);
    const other = { name: "kite3.png", bytes: createCanvas(40, 40).toBuffer("image/png") };
    await expect(sequenceToFilm([...files, other], { num: 30, den: 1 }, at("no.mov"))).rejects.toThrow(
      "kite3.png: it is 40 × 40, and kite10.png is 48 × 40",
    );
  });

  test("an animated WebP file keeps its frames and what is clear in them", async () => {
    clip("kite.webp", "-vf", "format=yuva420p", "-c:v", "libwebp_anim", "-lossless", "1");
    const bytes = readFileSync(at("kite.webp"));
    expect([isAnimatedWebp(bytes), isAnimatedWebp(drawn(3))]).toEqual([true, false]);
    await animationToFilm(bytes, "kite.webp", at("kite.mov"));
    expect((await openMoving(at("kite.mov"), "kite.webp")).info.frames).toBe(20);
    await expect(animationToFilm(bytes.subarray(0, 60), "kite.webp", at("no.mov"))).rejects.toThrow("damaged");
  });

  test("frames that stand for unlike times are repeated on an even grid", () => {
    expect(evenly([40, 40, 80])).toEqual({ rate: { num: 25, den: 1 }, times: [1, 1, 2] });
    // As browsers have it, a frame that stands for no time stands for a tenth of a second.
    expect(evenly([0, 200])).toEqual({ rate: { num: 10, den: 1 }, times: [1, 2] });
  });
});
