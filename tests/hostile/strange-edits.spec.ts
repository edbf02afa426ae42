/** Edits in which one value does not belong there. */
import { expect, test } from "@playwright/test";
import { seeded } from "../../demo/film/random";
import { USUAL_CAPTIONS } from "~/core/captions/caption-settings";
import { USUAL_LIMITS } from "~/core/checks/check-settings";
import { newText } from "~/core/composition/layers/layer";
import { USUAL_OUTPUT } from "~/core/formats/output-settings";
import { USUAL_ATTENTION } from "~/core/subjects/attention/attention-settings";
import { allDone, fillLibrary, FRAMES, idsOf, key, known, send, server } from "./library";
import { demand, json } from "../support/raw-request";

test.describe.configure({ retries: 0 });
test.beforeAll(fillLibrary);
test.afterAll(() => server.dispose());

/** Values that do not belong where they are put. */
const STRANGE: unknown[] = [
  null,
  true,
  -1,
  0.5,
  1e9,
  1e308,
  "",
  "x",
  "../..",
  "x".repeat(3000),
  "\u202e",
  [],
  {},
  [[]],
  { type: "set-key" },
  "__proto__",
  Number.MAX_SAFE_INTEGER,
  "constructor",
  "track:",
  "person:",
];

/** A copy in which one value, somewhere, is another. */
function mutated(value: unknown, random: () => number): unknown {
  const pick = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)]!;
  if (typeof value !== "object" || value === null || random() < 0.15) return pick(STRANGE);
  const copy: Record<string, unknown> | unknown[] = Array.isArray(value) ? [...(value as unknown[])] : { ...value };
  const at = pick(Object.keys(copy));
  if (at === undefined) return pick(STRANGE);
  const target = copy as Record<string, unknown>;
  if (random() < 0.1) delete target[at];
  else target[at] = mutated(target[at], random);
  return copy;
}

/** A film of two clips, with all that a film can have. */
async function joined(): Promise<{ film: string; version: string; shots: string[]; clips: string[]; frames: number }> {
  const ask = json("/join", { filmIds: [known.film, known.other], name: "Both" });
  const { filmId: film } = JSON.parse((await demand(server.url, 200, ask)).body) as { filmId: string };
  await allDone();
  return {
    film,
    frames: 2 * FRAMES,
    version: idsOf("versions", film)[0]!,
    shots: idsOf("shots", film),
    clips: idsOf("clips", film),
  };
}

test("400 edits with something strange in each are refused or sound, and none is a failure", async () => {
  const random = seeded(20261126);
  const { film, version: versionId, shots, clips, frames } = await joined();
  expect([shots.length > 2, clips.length]).toEqual([true, 2]);
  const caption = { id: "c", start: 10, end: 40, text: "Hold on", speaker: null };
  const commands = [
    { type: "set-key", versionId, key: key() },
    { type: "move-key", versionId, fromFrame: 5, key: key({ frame: 9 }) },
    {
      type: "set-framing",
      versionId,
      shotIds: shots,
      change: { movement: "glide", zoom: { kind: "free", min: 1, max: 2 } },
    },
    { type: "split-shot", frame: 20, kind: "switch" },
    { type: "join-shots", shotIds: shots.slice(-2) },
    { type: "move-cut", shotId: shots[1], frame: 40 },
    {
      type: "change-shots",
      shotIds: [shots[0]],
      change: { name: "Bench", protect: { x: 1, y: 1, width: 9, height: 9 } },
    },
    { type: "set-transitions", transitions: [{ frame: 30, kind: "dissolve", range: { start: 25, end: 35 } }] },
    {
      type: "batch",
      commands: [
        { type: "put-mark", thing: "m", frame: 3, box: { x: 5, y: 5, width: 50, height: 50 } },
        { type: "change-shots", shotIds: [shots[0]], change: { follow: { kind: "track", trackId: "mark-m" } } },
      ],
    },
    { type: "edit-track", trackId: "t", edit: { removed: [{ start: 1, end: 3 }], joinedTo: "u" } },
    { type: "add-version", version: { id: "v2", name: "Square", width: 720, height: 720 } },
    { type: "change-version", versionId, change: { output: { ...USUAL_OUTPUT, format: "vp9", mostMegabytes: 3 } } },
    { type: "change-version", versionId, change: { captions: USUAL_CAPTIONS, checkLimits: USUAL_LIMITS } },
    { type: "put-layer", versionId, layer: newText("t", "Kites") },
    { type: "put-layer", versionId, layer: { ...newText("u", "Sails"), range: { start: 4, end: 60 } } },
    { type: "move-layer", versionId, layerId: "t", to: 1 },
    { type: "change-captions", removed: [], put: [caption], how: "added" },
    { type: "change-captions", removed: ["c"], put: [{ ...caption, id: "d", end: 50 }], how: "moved" },
    { type: "trim-version", versionId, in: 3, out: frames - 4 },
    { type: "leave-out", versionId, ranges: [{ start: 30, end: 44 }] },
    { type: "bring-back", versionId, ranges: [{ start: 30, end: 40 }] },
    { type: "trim-clip", clipId: clips[0], in: 2, out: 90 },
    { type: "change-person", person: { id: "p1", name: "Nela", mergedInto: null } },
    { type: "set-attention", attention: { ...USUAL_ATTENTION, hold: 3 } },
  ];
  const revisionNow = () =>
    server.query<{ revision: number }>(`SELECT revision FROM films WHERE id = '${film}'`)[0]!.revision;
  // As they are, all of them are taken: what is refused below is refused for what is strange in it.
  for (const command of commands) {
    await demand(server.url, 200, json(`/films/${film}/edit`, { do: "edit", revision: revisionNow(), command }));
  }
  for (let i = 0; i < commands.length; i++) {
    await demand(server.url, 200, json(`/films/${film}/edit`, { do: "undo", revision: revisionNow() }));
  }
  const tally = new Map<number, number>();
  for (let i = 0; i < 400; i++) {
    const command = commands[i % commands.length]!;
    const change = mutated({ do: "edit", revision: revisionNow(), command }, random);
    const answer = await send(json(`/films/${film}/edit`, change));
    const told = `${JSON.stringify(change).slice(0, 400)}\n${answer.body.slice(0, 300)}`;
    expect([200, 400, 404, 409, 413, 422], told).toContain(answer.status);
    tally.set(answer.status, (tally.get(answer.status) ?? 0) + 1);
    const rows = server.query<{ start: number; end: number }>(
      `SELECT start_frame AS start, end_frame AS 'end' FROM shots WHERE film_id = '${film}' ORDER BY start_frame`,
    );
    expect(rows.at(0)!.start).toBe(0);
    expect(rows.at(-1)!.end).toBe(frames);
    rows.slice(1).forEach((row, j) => expect(row.start).toBe(rows[j]!.end));
  }
  expect(tally.get(400)).toBeGreaterThan(100);
  // After all that, every page of the film still opens.
  for (const path of [`/films/${film}`, `/films/${film}/status`, `/films/${film}/history`, "/exports", "/"]) {
    await demand(server.url, 200, { path });
  }
});
