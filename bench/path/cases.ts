/** What the paths are laid over: made-up movements with the faults of a detector, and what the analysis found in films. */
import { spawnSync } from "node:child_process";
import { mkdirSync, readFileSync } from "node:fs";
import { basename, join } from "node:path";
import { readReport } from "~/core/formats/read-report";
import type { Box, Size } from "~/core/geometry/box";
import { USUAL_ATTENTION } from "~/core/subjects/attention/attention-settings";
import { planFollowing } from "~/core/subjects/choosing/follow";
import type { Subject } from "~/core/subjects/choosing/subject";
import type { Track } from "~/core/subjects/tracking/track";
import type { FrameRange, Rate } from "~/core/time/rate";
import { seeded } from "../../demo/film/random";

export interface PathCase {
  name: string;
  shot: FrameRange;
  picture: Size;
  rate: Rate;
  subject: Subject;
}

const HD = { width: 1920, height: 1080 };
const SECONDS = 10;

/** Where a face is, in shares of the picture's width, at a second; null while it is not seen. */
type Movement = (second: number, random: () => number) => number | null;
const step = (t: number, from: number, to: number) => {
  const u = Math.min(1, Math.max(0, (t - from) / (to - from)));
  return u * u * (3 - 2 * u);
};

const MOVEMENTS: Record<string, Movement> = {
  sits: () => 0.38,
  "sways while talking": (t) => 0.6 + 0.03 * Math.sin(1.3 * t) + 0.015 * Math.sin(3.1 * t),
  "walks once": (t) => 0.25 + 0.5 * step(t, 3, 6),
  "walks and stops thrice": (t) => 0.2 + 0.2 * step(t, 1, 2.5) + 0.2 * step(t, 4, 5) + 0.2 * step(t, 7, 9),
  "turns back": (t) => 0.25 + 0.45 * step(t, 1, 4) - 0.4 * step(t, 4.3, 7),
  "crosses steadily": (t) => 0.08 + 0.084 * t,
  "runs to and fro": (t) => 0.5 + 0.36 * Math.sin(1.7 * t),
  sprints: (t) => 0.1 + 0.8 * step(t, 4, 5.6),
  "comes late": (t) => (t < 3 ? null : 0.95 - 0.4 * step(t, 3, 5.5)),
  leaves: (t) => (t > 6.5 ? null : 0.5 + 0.45 * step(t, 3, 6.5)),
  "is lost now and then": (t) => ((t > 2 && t < 3.2) || (t > 6 && t < 6.6) ? null : 0.3 + 0.4 * step(t, 2, 6)),
  "starts to go and does not": (t) => 0.4 + 0.12 * (step(t, 3, 3.6) - step(t, 4, 5)),
};
const RATES: Rate[] = [
  { num: 24000, den: 1001 },
  { num: 25, den: 1 },
  { num: 30, den: 1 },
  { num: 60, den: 1 },
];

function movementCase(name: string, movement: Movement, rate: Rate, seed: number, seconds = SECONDS): PathCase {
  const random = seeded(seed);
  const fps = rate.num / rate.den;
  const count = Math.round(seconds * fps);
  // A detector trembles, and sees a little too much or too little for some frames on end.
  let drift = 0;
  const boxes = Array.from({ length: count }, (_, i): Box | null => {
    drift = 0.9 * drift + 6 * (random() - 0.5);
    const x = movement(i / fps, random);
    const [width, height] = [150 + 6 * random(), 190 + 6 * random()];
    return x === null ? null : { x: x * HD.width - width / 2 + drift + 5 * (random() - 0.5), y: 260, width, height };
  });
  const track: Track = { id: name, kind: "face", start: 0, boxes, confidence: 0.9 };
  return {
    name: `${name}, ${fps.toFixed(0)} fps`,
    shot: { start: 0, end: count },
    picture: HD,
    rate,
    subject: { track, body: null },
  };
}

/** Every movement at a rate of its own and at one more. */
export const movementCases = (): PathCase[] =>
  Object.entries(MOVEMENTS).flatMap(([name, movement], i) =>
    [0, 1].map((k) => movementCase(name, movement, RATES[(i + 2 * k) % RATES.length]!, 100 * i + k + 1)),
  );

/** One take in which somebody walks to another place every ten seconds. */
export const longCase = (seconds: number): PathCase =>
  movementCase(
    `${seconds} s`,
    (t) => {
      const [turn, second] = [Math.floor(t / SECONDS), t % SECONDS];
      const there = step(second, 3, 5.5);
      return 0.25 + 0.45 * (turn % 2 === 0 ? there : 1 - there);
    },
    { num: 30, den: 1 },
    seconds,
    seconds,
  );

/** Shots of films as the analysis sees them, with whom it follows. */
export function filmCases(files: readonly string[], folder: string): PathCase[] {
  mkdirSync(folder, { recursive: true });
  return files.flatMap((file) => {
    const report = join(folder, `${basename(file)}.json`);
    const run = spawnSync("node", ["--import", "tsx", "cli/glad-pan.ts", "analyse", file, "--report", report], {
      stdio: ["ignore", "ignore", "inherit"],
    });
    if (run.status !== 0) throw new Error(`the analysis of ${file} failed`);
    const film = readReport(readFileSync(report, "utf8"));
    const window = { width: (film.picture.height * 9) / 16, height: film.picture.height };
    return film.shots.flatMap(({ range, tracks }, i) => {
      const rule = { kind: "auto" } as const;
      const problem = { ...film, rule, shot: range, tracks, window, before: null, attention: USUAL_ATTENTION };
      const [span] = planFollowing(problem).spans;
      if (!span?.subject) return [];
      const { picture, rate } = film;
      return [{ name: `${film.file} ${i + 1}`, shot: range, picture, rate, subject: span.subject }];
    });
  });
}
