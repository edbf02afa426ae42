/**
 * Follows people and things in made-up, difficult scenes and holds what was found against the truth, for the scenes
 * that the method was tuned on and, apart, for those that were not looked at. Things that no detector knows, text, and scenes in
 * which attention passes on have tables of their own: there the windows count.
 *
 *   ./glad-pan bench subjects [--json OUT.json] [--set NAME] [--apart] [--more N] [--quick]
 *
 * With --apart the scenes that are kept apart are looked at as well, of things N more in each set: one says little about
 * how often a method fails. --quick takes only the first of the others
 */
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { clipBox } from "~/core/geometry/box";
import { USUAL_ATTENTION } from "~/core/subjects/attention/attention-settings";
import { planFollowing } from "~/core/subjects/choosing/follow";
import type { FollowPlan } from "~/core/subjects/choosing/follow-plan";
import { boxAt, type Track } from "~/core/subjects/tracking/track";
import type { FrameRange } from "~/core/time/rate";
import { analyseAtOnce } from "~/pipelines/analyse-film.server";
import { followMarks } from "~/pipelines/follow-marks.server";
import { probeFilm } from "~/media/probe.server";
import type { FilmFile } from "~/media/film-file";
import { encode } from "../encode";
import { ScenePainter, type Seen } from "./draw-scene";
import { PICTURE, planScenes, RATE, type ScenePlan } from "./plan";
import {
  addFaces,
  addMarks,
  FACE_SIZES,
  type FaceScore,
  type MarkScore,
  NO_FACES,
  NO_MARKS,
  rightSubject,
  scoreFaces,
  scoreMark,
  toBox,
} from "./score";
import { runAttention } from "./attention/run-attention";
import { addAttention, attentionRow, type AttentionScore, NO_ATTENTION } from "./attention/score-attention";
import { planTalks, type Talk } from "./talks";
import { runThings } from "./things/run-things";
import { addThings, NO_THINGS, thingRow, type ThingScore } from "./things/score-things";

const { values } = parseArgs({
  options: {
    json: { type: "string" },
    set: { type: "string" },
    apart: { type: "boolean" },
    more: { type: "string", default: "0" },
    quick: { type: "boolean" },
  },
});
const FPS = RATE.num / RATE.den;
/** Pixels of the picture to those of one of 640 × 360, in which the sizes of faces are given. */
const SCALE = 640 / PICTURE.width;
/** Sets in which a box is drawn around every actor and followed. */
const MARKED = new Set([
  "quick",
  "crossing",
  "hidden",
  "late",
  "nearer",
  "pan",
  "things",
  "cart",
  "shaken",
  "dark",
  "grain",
]);

function codeVersion(): string {
  const hash = createHash("sha256");
  for (const file of ["plan.ts", "draw-scene.ts", "talks.ts", "../encode.ts"]) {
    hash.update(readFileSync(join(import.meta.dirname, file)));
  }
  return hash.digest("hex").slice(0, 12);
}
const folder = join(tmpdir(), `glad-pan-bench-subjects-${codeVersion()}`);
mkdirSync(folder, { recursive: true });

interface Totals {
  faces: FaceScore;
  right: { right: number; asked: number };
  marks: MarkScore;
  speaker: { right: number; asked: number };
}
const noTotals = (): Totals => ({
  faces: NO_FACES,
  right: { right: 0, asked: 0 },
  marks: NO_MARKS,
  speaker: { right: 0, asked: 0 },
});
const sum = (a: { right: number; asked: number }, b: { right: number; asked: number }) => ({
  right: a.right + b.right,
  asked: a.asked + b.asked,
});
const add = (a: Totals, b: Totals): Totals => ({
  faces: addFaces(a.faces, b.faces),
  right: sum(a.right, b.right),
  marks: addMarks(a.marks, b.marks),
  speaker: sum(a.speaker, b.speaker),
});

async function filmOf(plan: ScenePlan, painter: ScenePainter, sound?: string): Promise<FilmFile> {
  const file = join(folder, `${plan.name.replaceAll(" ", "-")}.mp4`);
  if (!existsSync(file)) {
    const { crf } = plan;
    await encode({ size: PICTURE, rate: RATE, crf, frames: painter.frames, draw: (f) => painter.draw(f), sound }, file);
  }
  return { file, name: plan.name, info: await probeFilm(file) };
}

/** Follows each actor from a box around it at some frame in which it is whole to be seen, with what was found. */
async function scoreMarks(film: FilmFile, truth: Seen[][], seed: number, tracks: Track[]): Promise<MarkScore> {
  let total = NO_MARKS;
  for (const { id } of truth[0]!) {
    const real = truth.map((seen) => {
      const actor = seen.find((other) => other.id === id)!;
      const body = toBox(actor.body);
      return { box: body && clipBox(body, PICTURE), hidden: actor.hidden };
    });
    const whole = real.flatMap(({ box, hidden }, frame) => (box && hidden < 0.05 ? [frame] : []));
    if (whole.length === 0) continue;
    const frame = whole[(seed * 7919) % whole.length]!;
    const shot = { start: 0, end: truth.length };
    const thing = { id: "mark", shot, marks: [{ frame, box: real[frame]!.box! }] };
    const track = await followMarks(film, thing, { tracks });
    total = addMarks(total, scoreMark(track, real));
  }
  return total;
}

/** Whom an upright window follows in a shot. */
function planIn(shot: FrameRange, tracks: Track[], kind: "auto" | "speaker"): FollowPlan {
  const window = { width: (PICTURE.height * 9) / 16, height: PICTURE.height };
  const rest = { picture: PICTURE, window, rate: RATE, before: null, attention: USUAL_ATTENTION };
  return planFollowing({ rule: { kind }, shot, tracks, ...rest });
}

async function scoreScene(plan: ScenePlan, talk?: Talk): Promise<Totals> {
  const painter = new ScenePainter(plan);
  const film = await filmOf(plan, painter, talk?.sound);
  const truth = Array.from({ length: painter.frames }, (_, frame) => painter.seen(frame));
  const { shots } = await analyseAtOnce(film);
  const tracks: Track[] = shots.flatMap((shot) => shot.tracks);
  const followed = shots.flatMap(({ range, tracks: own }) => {
    const { spans } = planIn(range, own, "auto");
    return spans.flatMap(({ start, end, subject }) =>
      Array.from({ length: end - start }, (_, i) => {
        const box = subject && (boxAt(subject.track, start + i) ?? (subject.body && boxAt(subject.body, start + i)));
        return box || null;
      }),
    );
  });
  const totals = noTotals();
  totals.faces = scoreFaces(tracks, truth, SCALE, FPS);
  totals.right = rightSubject(followed, truth);
  if (MARKED.has(plan.set)) totals.marks = await scoreMarks(film, truth, plan.seed, tracks);
  if (talk) totals.speaker = scoreSpeaker(talk, shots, truth);
  return totals;
}

/** Share of the time in which somebody speaks that the turn is theirs. */
function scoreSpeaker({ turns }: Talk, shots: { range: FrameRange; tracks: Track[] }[], truth: Seen[][]) {
  let right = 0;
  let asked = 0;
  const found = shots.flatMap(({ range, tracks }) => planIn(range, tracks, "speaker").spans);
  truth.forEach((seen, frame) => {
    const speaker = turns.find(({ from, to }) => frame / FPS >= from && frame / FPS < to);
    if (!speaker) return;
    asked++;
    const here = found.find(({ start, end }) => frame >= start && frame < end);
    const box = here?.subject && boxAt(here.subject.track, frame);
    const face = toBox(seen.find(({ id }) => id === speaker.id)!.face);
    if (!box || !face) return;
    const x = box.x + box.width / 2;
    if (x >= face.x && x < face.x + face.width) right++;
  });
  return { right, asked };
}

const ratio = (part: number, whole: number) => (whole === 0 ? null : part / whole);
function figures({ faces, right, marks, speaker }: Totals) {
  return {
    recall: Object.fromEntries(FACE_SIZES.map(({ name }, i) => [name, ratio(faces.found[i]!, faces.asked[i]!)])),
    precision: ratio(faces.right, faces.said),
    overlap: ratio(faces.overlap, faces.right),
    switchesAMinute: ratio(60 * faces.switches, faces.seconds),
    rightSubject: ratio(right.right, right.asked),
    marksHeld: ratio(marks.held, marks.asked),
    markOff: ratio(marks.off, marks.held),
    recovered: ratio(marks.recovered, marks.hidden),
    speaker: ratio(speaker.right, speaker.asked),
  };
}
const shown = (value: number | null, digits = 1) => (value === null ? "" : (100 * value).toFixed(digits));
function row(totals: Totals) {
  const f = figures(totals);
  return {
    "≥40": shown(f.recall["40 px and more"]!),
    "24–40": shown(f.recall["24 to 40 px"]!),
    "precision %": shown(f.precision),
    "IoU %": shown(f.overlap, 0),
    "switches/min": f.switchesAMinute === null ? "" : f.switchesAMinute.toFixed(2),
    "right subject %": shown(f.rightSubject),
    "marks held %": shown(f.marksHeld),
    "off %": shown(f.markOff),
    "found again %": shown(f.recovered, 0),
    "speaker %": shown(f.speaker),
  };
}

const talks = planTalks(folder, (seed) => planScenes()[seed % 10]!.actors[0]!.person!);
const scenes = [
  ...planScenes().map((plan) => ({ plan, talk: undefined })),
  ...talks.map((talk) => ({ plan: talk.plan, talk })),
];
const isWanted = ({ name, set, apart }: Pick<ScenePlan, "name" | "set" | "apart">): boolean =>
  (!values.set || set === values.set) && (values.apart || !apart) && (!values.quick || name.endsWith(" 0") || apart);
const wanted = scenes.filter(({ plan }) => isWanted(plan));
const sets = new Map<string, Totals>();
const parts = { tuned: noTotals(), apart: noTotals() };
for (const { plan, talk } of wanted) {
  process.stderr.write(`\r${plan.name}                `);
  const totals = await scoreScene(plan, talk);
  const part = plan.apart ? "apart" : "tuned";
  parts[part] = add(parts[part], totals);
  sets.set(plan.set, add(sets.get(plan.set) ?? noTotals(), totals));
}
const things = new Map<string, ThingScore>();
const thingParts = { tuned: NO_THINGS, apart: NO_THINGS };
for await (const { scene, score } of runThings(Number(values.more), isWanted)) {
  const failed = score.right < score.shots || score.leftAlone < score.empty;
  process.stderr.write(`\r${scene.name}${failed ? ": not the right one\n" : "                "}`);
  const part = scene.apart ? "apart" : "tuned";
  thingParts[part] = addThings(thingParts[part], score);
  things.set(scene.set, addThings(things.get(scene.set) ?? NO_THINGS, score));
}
const attention = new Map<string, AttentionScore>();
const attentionParts = { tuned: NO_ATTENTION, apart: NO_ATTENTION };
for await (const { name, set, apart, score, reason } of runAttention(isWanted)) {
  process.stderr.write(`\r${name}: ${reason}                \n`);
  const part = apart ? "apart" : "tuned";
  attentionParts[part] = addAttention(attentionParts[part], score);
  attention.set(set, addAttention(attention.get(set) ?? NO_ATTENTION, score));
}
process.stderr.write("\r");
const print = <T>(of: Iterable<[string, T]>, rowOf: (value: T) => object) => {
  const rows = [...of].map(([name, value]) => [name, rowOf(value)]);
  if (rows.length > 0) console.table(Object.fromEntries(rows));
};
if (wanted.length > 0) {
  print(sets, row);
  print(Object.entries(parts), row);
}
if (things.size > 0) {
  print(things, thingRow);
  print(Object.entries(thingParts), thingRow);
}
if (attention.size > 0) {
  print(attention, attentionRow);
  print(Object.entries(attentionParts), attentionRow);
}
if (values.json) {
  const json = {
    parts: Object.fromEntries(Object.entries(parts).map(([part, totals]) => [part, figures(totals)])),
    sets: Object.fromEntries([...sets].map(([set, totals]) => [set, figures(totals)])),
    things: { parts: thingParts, sets: Object.fromEntries(things) },
    attention: { parts: attentionParts, sets: Object.fromEntries(attention) },
  };
  writeFileSync(values.json, `${JSON.stringify(json, null, 2)}\n`);
}
