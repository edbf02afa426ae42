/**
 * Times captions by the voice in made-up talks and in the demo film, and tells how far their starts are from where they are
 * known to be.
 *
 *   ./glad-pan bench captions
 */
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Said } from "~/core/captions/break-text";
import { USUAL_CAPTIONS } from "~/core/captions/caption-settings";
import { timeCaptions } from "~/core/captions/time-captions";
import { median } from "~/core/numbers/median";
import { speechIn, speechSegments } from "~/core/subjects/speaking/voice";
import { framesPerSecond } from "~/core/time/rate";
import { probeFilm } from "~/media/probe.server";
import { listen, SECONDS_PER_PIECE } from "~/media/voice.server";
import { readTruth } from "../../demo/truth";
import { LINES } from "../../demo/film/lines";
import { makeTalks } from "./talks";

/** Seconds from where each caption of a text is known to begin to where it was laid. */
async function errors(file: string, said: readonly Said[], starts: readonly number[]): Promise<number[]> {
  const info = await probeFilm(file);
  const speech: number[] = [];
  for await (const probability of listen({ file, name: "talk", info }, 0)) speech.push(probability);
  const range = { start: 0, end: info.frames };
  const heard = speechIn({ speech, secondsPerPiece: SECONDS_PER_PIECE }, range, info.rate);
  const segments = speechSegments(heard, info.rate);
  const timed = timeCaptions(said, { segments, turns: [] }, range, info.rate, USUAL_CAPTIONS.rules);
  return timed.map(({ start }, i) => start / framesPerSecond(info.rate) - starts[i]!);
}

const share = (values: readonly number[], most: number) =>
  `${Math.round((100 * values.filter((value) => value <= most).length) / values.length)}%`;

function row(name: string, off: readonly number[]) {
  const size = off.map(Math.abs);
  return {
    talk: name,
    captions: off.length,
    "median error, s (goal ≤ 0.15)": median(size).toFixed(3),
    "within 0.25 s": share(size, 0.25),
    "within 0.5 s": share(size, 0.5),
    "worst, s": Math.max(...size).toFixed(2),
    "mean, signed": (off.reduce((a, b) => a + b, 0) / off.length).toFixed(3),
  };
}

const folder = mkdtempSync(join(tmpdir(), "glad-pan-captions-"));
try {
  const rows: ReturnType<typeof row>[] = [];
  const byKind = new Map<string, number[]>();
  for (const talk of makeTalks(folder)) {
    const film = join(folder, "talk.mp4");
    execFileSync("ffmpeg", [
      ...["-y", "-v", "error", "-f", "lavfi", "-i", "color=gray:s=64x64:r=25", "-i", talk.sound],
      ...["-shortest", "-c:v", "libx264", "-preset", "ultrafast", "-c:a", "aac", film],
    ]);
    const off = await errors(film, talk.said, talk.starts);
    rows.push(row(`${talk.kind}, ${talk.name}`, off));
    byKind.set(talk.kind, [...(byKind.get(talk.kind) ?? []), ...off]);
  }
  const truth = readTruth("demo/ferrow-kite-day.truth.json");
  const demo = await errors(
    "demo/ferrow-kite-day.mp4",
    LINES.map(({ text, person }) => ({ text, speaker: person })),
    truth.speech.map(({ start }) => start / (truth.rate[0] / truth.rate[1])),
  );
  console.table(rows);
  console.table([...[...byKind].map(([kind, off]) => row(kind, off)), row("demo film", demo)]);
} finally {
  rmSync(folder, { recursive: true });
}
