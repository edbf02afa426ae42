/** Edits in which one value does not belong there. */
import { expect, test } from "@playwright/test";
import { seeded } from "../../demo/film/random";
import { fillLibrary, FRAMES, key, known, query, send, server } from "./library";
import { json } from "../support/raw-request";

test.describe.configure({ retries: 0 });
test.beforeAll(fillLibrary);
test.afterAll(() => server.dispose());

/** Values that do not belong where they are put. */
const STRANGE: unknown[] = [
  ...[null, true, -1, 0.5, 1e9, 1e308, "", "x", "../..", "x".repeat(3000), "\u202e", [], {}, [[]], { type: "set-key" }],
  ...["__proto__", Number.MAX_SAFE_INTEGER, "constructor", "track:", "person:"],
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

test("300 edits with something strange in each are refused or sound, and none is a failure", async () => {
  const random = seeded(20261126);
  const { film, version, shots } = known;
  const commands = [
    { type: "set-key", versionId: version, key: key() },
    { type: "move-key", versionId: version, fromFrame: 5, key: key({ frame: 9 }) },
    {
      type: "set-framing",
      versionId: version,
      shotIds: shots,
      change: { manner: "glide", zoom: { kind: "free", min: 1, max: 2 } },
    },
    { type: "split-shot", frame: 20, kind: "turn" },
    { type: "join-shots", shotIds: shots },
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
  ];
  const tally = new Map<number, number>();
  for (let i = 0; i < 300; i++) {
    const [{ revision }] = query<{ revision: number }>(`SELECT revision FROM films WHERE id = '${film}'`) as [
      { revision: number },
    ];
    const change = mutated({ do: "edit", revision, command: commands[i % commands.length] }, random);
    const answer = await send(json(`/films/${film}/edit`, change));
    expect(answer.status, `${JSON.stringify(change).slice(0, 400)}\n${answer.body.slice(0, 300)}`).toBeLessThan(500);
    tally.set(answer.status, (tally.get(answer.status) ?? 0) + 1);
    const rows = query<{ start: number; end: number }>(
      `SELECT start_frame AS start, end_frame AS 'end' FROM shots WHERE film_id = '${film}' ORDER BY start_frame`,
    );
    expect(rows.at(0)!.start).toBe(0);
    expect(rows.at(-1)!.end).toBe(FRAMES);
    rows.slice(1).forEach((row, j) => expect(row.start).toBe(rows[j]!.end));
  }
  expect(tally.get(400)).toBeGreaterThan(100);
});
