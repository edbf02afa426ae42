/** Frames the scenes in which attention passes on, and holds the windows against their scripts. */
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { aspectRatio, windowBox } from "~/core/geometry/crop-window";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import { frameShots } from "~/core/path/version-paths";
import { boxAt } from "~/core/subjects/tracking/track";
import { probeFilm } from "~/media/probe.server";
import { analyseAtOnce } from "~/pipelines/analyse-film.server";
import { encode } from "../../encode";
import { ScenePainter } from "../draw-scene";
import { PICTURE, RATE } from "../plan";
import { type AttentionScene, planAttention } from "./plan-attention";
import { type AttentionScore, type Held, scoreAttention } from "./score-attention";

const TARGET = { width: 1080, height: 1920 };
const FPS = RATE.num / RATE.den;

function codeVersion(): string {
  const hash = createHash("sha256");
  for (const file of ["plan-attention.ts", "../plan.ts", "../draw-scene.ts", "../../encode.ts"]) {
    hash.update(readFileSync(join(import.meta.dirname, file)));
  }
  return hash.digest("hex").slice(0, 12);
}

async function scoreScene({ plan, due, sound }: AttentionScene, folder: string) {
  const painter = new ScenePainter(plan);
  const file = join(folder, `${plan.name.replaceAll(/\W+/g, "-")}.mp4`);
  if (!existsSync(file)) {
    const { crf } = plan;
    await encode({ size: PICTURE, rate: RATE, crf, frames: painter.frames, draw: (f) => painter.draw(f), sound }, file);
  }
  const truth = Array.from({ length: painter.frames }, (_, frame) => painter.seen(frame));
  const { shots } = await analyseAtOnce({ file, name: plan.name, info: await probeFilm(file) });
  const framed = frameShots(
    shots.map(({ range, tracks, active }) => ({
      range,
      kept: [range],
      settings: USUAL_FRAMING,
      tracks,
      rule: { kind: "auto" },
      handKeys: [],
      others: [],
      protect: null,
      active,
      carry: false,
      atSwitch: false,
    })),
    PICTURE,
    TARGET,
    RATE,
  );
  const windows = framed.flatMap((shot) => shot.windows.map((window) => windowBox(window, aspectRatio(TARGET))));
  const held = framed.flatMap(({ spans }, s) =>
    spans.map(({ start, end, trackIds }): Held => {
      const tracks = shots[s]!.tracks.filter(({ id }) => trackIds.includes(id));
      return { start, end, boxesAt: (frame) => tracks.flatMap((track) => boxAt(track, frame) ?? []) };
    }),
  );
  const reason = framed.map((shot) => shot.reason).join(" | ");
  return { score: scoreAttention(due, held, windows, truth, FPS), reason };
}

/** The scenes that are wanted, each with what came of it. */
export async function* runAttention(
  isWanted: (scene: { name: string; set: string; apart: boolean }) => boolean,
): AsyncGenerator<{ name: string; set: string; apart: boolean; score: AttentionScore; reason: string }> {
  const folder = join(tmpdir(), `glad-pan-bench-attention-${codeVersion()}`);
  mkdirSync(folder, { recursive: true });
  for (const { name, set, apart, make } of planAttention(folder)) {
    if (isWanted({ name, set, apart })) yield { name, set, apart, ...(await scoreScene(make(), folder)) };
  }
}
