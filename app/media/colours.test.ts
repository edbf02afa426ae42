import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { decodeFrames, type DecodeOptions } from "./decode.server";
import { probeFilm } from "./probe.server";

const folder = mkdtempSync(join(tmpdir(), "glad-pan-colours-"));
afterAll(() => rmSync(folder, { recursive: true }));

/** Patches from left to right, as they are to be seen. */
const PATCHES = [
  [200, 40, 60],
  [30, 150, 70],
  [40, 60, 190],
  [128, 128, 128],
  [235, 225, 210],
] as const;
const [WIDTH, HEIGHT] = [80 * PATCHES.length, 160];

/** Makes a film of the patches, stored in some way. */
function film(name: string, filters: string, ...tags: string[]): void {
  const boxes = PATCHES.map(([r, g, b], i) => `drawbox=x=${80 * i}:y=0:w=80:h=${HEIGHT}:color=${hex(r, g, b)}:t=fill`);
  const graph = ["format=gbrp", ...boxes, filters].join(",");
  const input = ["-f", "lavfi", "-i", `color=black:s=${WIDTH}x${HEIGHT}:r=25:d=0.4`];
  const encoder = ["-c:v", "libx264", "-preset", "ultrafast", "-qp", "1", ...tags, join(folder, name)];
  execFileSync("ffmpeg", ["-y", "-v", "error", ...input, "-vf", graph, ...encoder]);
}
const hex = (...rgb: number[]) => `0x${rgb.map((value) => value.toString(16).padStart(2, "0")).join("")}`;

/** The patches of the first frame as Rec.709 of limited range shows them. */
async function shown(name: string, options: DecodeOptions = {}): Promise<number[][]> {
  const info = await probeFilm(join(folder, name));
  const { width, height } = options.size ?? info.picture;
  const range = { start: 0, end: 1 };
  for await (const data of decodeFrames({ file: join(folder, name), name, info }, { ...options, range })) {
    const plane = width * height;
    return PATCHES.map((_, i) => {
      const [x, y] = [Math.floor(((i + 0.5) * width) / PATCHES.length), height >> 1];
      const chroma = (y >> 1) * (width >> 1) + (x >> 1);
      const luma = (data[y * width + x]! - 16) / 219;
      const [cb, cr] = [data[plane + chroma]!, data[plane + (plane >> 2) + chroma]!].map((c) => (c - 128) / 224);
      const red = luma + 1.5748 * cr!;
      const blue = luma + 1.8556 * cb!;
      const green = (luma - 0.2126 * red - 0.0722 * blue) / 0.7152;
      return [red, green, blue].map((value) => Math.round(255 * value));
    });
  }
  throw new Error("no frame");
}

const farthest = (found: number[][]): number =>
  Math.max(...found.flatMap((patch, i) => patch.map((value, c) => Math.abs(value - PATCHES[i]![c]!))));

const SMALL = { size: { width: WIDTH / 2, height: HEIGHT / 2 }, colours: "Rec.709" } as const;
const tagged = (primaries: string, transfer: string, matrix: string, range = "tv") => [
  ...["-color_primaries", primaries, "-color_trc", transfer, "-colorspace", matrix, "-color_range", range],
];

beforeAll(() => {
  const to = (matrix: string, range = "tv") => `scale=out_color_matrix=${matrix}:out_range=${range},format=yuv420p`;
  film("709.mp4", to("bt709"), ...tagged("bt709", "bt709", "bt709"));
  film("601.mp4", to("bt601"), ...tagged("smpte170m", "smpte170m", "smpte170m"));
  film("unsaid.mkv", to("bt601"));
  film("full.mp4", to("bt709", "pc"), ...tagged("bt709", "bt709", "bt709", "pc"));
  const as709 = "setparams=colorspace=bt709:color_primaries=bt709:color_trc=bt709:range=tv";
  const light = `scale=out_color_matrix=bt709:out_range=tv,format=yuv444p,${as709},zscale=t=linear:npl=203,format=gbrpf32le`;
  for (const [name, transfer] of [
    ["pq.mp4", "smpte2084"],
    ["hlg.mp4", "arib-std-b67"],
  ] as const) {
    const filters = `${light},zscale=p=bt2020:t=${transfer}:m=bt2020nc:r=tv:npl=203,format=yuv420p10le`;
    film(name, filters, ...tagged("bt2020", transfer, "bt2020nc"));
  }
});

test.each(["709.mp4", "601.mp4", "unsaid.mkv", "full.mp4"])("%s has the colours it was made with", async (name) => {
  expect(farthest(await shown(name))).toBeLessThanOrEqual(6);
  expect(farthest(await shown(name, SMALL))).toBeLessThanOrEqual(6);
});

test.each(["pq.mp4", "hlg.mp4"])("%s is brought to what a usual screen shows, whites a little down", async (name) => {
  for (const options of [{}, SMALL]) {
    const found = await shown(name, options);
    expect(farthest(found)).toBeLessThanOrEqual(30);
    const [, , , grey, white] = found as [number[], number[], number[], number[], number[]];
    // Neutral stays neutral.
    expect(Math.max(...grey) - Math.min(...grey)).toBeLessThanOrEqual(3);
    expect(white[0]).toBeGreaterThan(205);
  }
});
