/** What the built server says to requests that nobody should send, and that nothing comes of them. */
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { Agent } from "node:http";
import { join } from "node:path";
import Database from "better-sqlite3";
import { expect, test } from "@playwright/test";
import { seeded } from "../../demo/film/random";
import { LONG_WORK, TestServer } from "../support/server";
import { form, json, type RawRequest, send as sendTo, upload } from "./raw-request";

const server = new TestServer();
const send = (request: RawRequest) => sendTo(server.url, request);
const CLIP = readFileSync("demo/clips/two-shots.mp4");
const FRAMES = 99;

let film = "";
let version = "";
let shots: string[] = [];
let otherShot = "";

function query<T>(sql: string): T[] {
  const db = new Database(join(server.data, "glad-pan.db"), { readonly: true });
  try {
    return db.prepare<[], T>(sql).all();
  } finally {
    db.close();
  }
}

/** All that could have been changed: what can be edited of the films, the jobs, and the files there are. */
function everything(): string {
  const tables = [
    "films",
    "shots",
    "versions",
    "shot_framings",
    "hand_keys",
    "marks",
    "people",
    "track_edits",
    "edits",
  ];
  const rows = tables.map((table) => query(`SELECT * FROM ${table} ORDER BY 1, 2`));
  const jobs = query("SELECT id, kind, state FROM jobs ORDER BY id");
  const files = readdirSync(server.data, { recursive: true })
    .map(String)
    .filter((name) => !/-(wal|shm)$/.test(name))
    .sort();
  return JSON.stringify([rows, jobs, files]);
}

async function addFilm(name: string): Promise<string> {
  const answer = await send(upload(name, CLIP));
  expect(answer.status, answer.body).toBe(201);
  return String(answer.headers["glad-pan-film"]);
}

// What is refused once is refused every time.
test.describe.configure({ retries: 0 });
test.beforeAll(async () => {
  await server.start();
  film = await addFilm("kite.html");
  const other = await addFilm("other.mp4");
  await expect
    .poll(() => query<{ state: string }>("SELECT state FROM jobs").every(({ state }) => state === "done"), {
      timeout: LONG_WORK,
    })
    .toBe(true);
  const of = (table: string, id: string) =>
    query<{ id: string }>(`SELECT id FROM ${table} WHERE film_id = '${id}' ORDER BY rowid`).map((row) => row.id);
  version = of("versions", film)[0]!;
  shots = of("shots", film);
  otherShot = of("shots", other)[0]!;
  expect(shots).toHaveLength(2);
  // Somebody's half-written file, and one of another time.
  writeFileSync(join(server.data, "films", film, ".secret.part.mp4"), "half");
});
test.afterAll(() => server.dispose());

const edit = (command: unknown, revision = 0) => json(`/films/${film}/edit`, { do: "edit", revision, command });
const key = (change: object = {}) => ({ frame: 5, x: 640, y: 360, height: 720, easing: null, ...change });
const shot = (change: object) => ({
  ...{ id: shots[0], start: 0, end: 45, begins: "cut", mixed: { start: 0, end: 0 }, carry: false, subject: "auto" },
  ...{ name: null, excluded: false, protect: null, ...change },
});
const list = (name: string, content: string): RawRequest => ({
  method: "POST",
  path: `/films/${film}/cuts/list`,
  headers: { "content-type": "multipart/form-data; boundary=edge" },
  body: `--edge\r\nContent-Disposition: form-data; name="list"; filename="${name}"\r\nContent-Type: text/plain\r\n\r\n${content}\r\n--edge--\r\n`,
});

interface Case {
  what: string;
  request: () => RawRequest;
  status: number | number[];
}
const NO = [403, 404, 405];

const CASES: Case[] = [
  // Ids that lead elsewhere.
  ...["../../x", "", "..", ".", "nobody", "a/b", "%2e%2e"].map((filmId) => ({
    what: `removing the film "${filmId}"`,
    request: () => form("/?index", { intent: "delete", filmId }),
    status: [400, 404],
  })),
  { what: "a film's page by a path", request: () => ({ path: "/films/..%2f..%2fx" }), status: 404 },
  { what: "tracks of no film", request: () => ({ path: "/films/nobody/tracks" }), status: 404 },
  {
    what: "an upload by a path",
    request: () => ({ path: "/uploads/%2e%2e%2fglad-pan.db", method: "HEAD", headers: { "tus-resumable": "1.0.0" } }),
    status: 404,
  },
  {
    what: "removing an upload by a path",
    request: () => ({ path: "/uploads/..%2fglad-pan.db", method: "DELETE", headers: { "tus-resumable": "1.0.0" } }),
    status: 404,
  },
  // Who speaks, and to whom.
  { what: "another host's name", request: () => ({ path: "/", headers: { host: "films.example" } }), status: 403 },
  {
    what: "another host's name on our port",
    request: () => ({ path: `/films/${film}`, headers: { host: `127.0.0.1.films.example:4170` } }),
    status: 403,
  },
  { what: "no host", request: () => ({ path: "/", headers: { host: "" } }), status: [400, 403] },
  ...[
    { origin: "http://films.example" },
    { origin: "null" },
    { origin: undefined },
    { origin: undefined, "sec-fetch-site": "cross-site" },
    { "sec-fetch-site": "same-site" },
    { origin: "http://127.0.0.1:1" },
  ].flatMap((headers) => [
    {
      what: `an edit with ${JSON.stringify(headers)}`,
      request: () => ({
        ...edit({ type: "set-key", versionId: version, key: key() }),
        headers: { "content-type": "application/json", ...headers },
      }),
      status: 403,
    },
    {
      what: `a removal with ${JSON.stringify(headers)}`,
      request: () => form("/?index", { intent: "delete", filmId: film }, headers),
      status: 403,
    },
    {
      what: `an upload with ${JSON.stringify(headers)}`,
      request: () => ({ ...upload("kite.mp4", CLIP), headers: { ...upload("kite.mp4", CLIP).headers, ...headers } }),
      status: 403,
    },
    {
      what: `a list with ${JSON.stringify(headers)}`,
      request: () => ({
        ...list("a.csv", ""),
        headers: { "content-type": "multipart/form-data; boundary=edge", ...headers },
      }),
      status: 403,
    },
  ]),
  ...["text/plain", "application/x-www-form-urlencoded", undefined].map((type) => ({
    what: `an edit as ${type}`,
    request: () => json(`/films/${film}/edit`, { do: "undo", revision: 0 }, { "content-type": type }),
    status: 415,
  })),
  // Too much.
  {
    what: "an edit that is declared too long",
    request: () => json(`/films/${film}/edit`, `[${"[".repeat(2 ** 20)}`),
    status: 413,
  },
  {
    what: "an edit that turns out too long",
    request: () => ({ ...json(`/films/${film}/edit`, "[".repeat(2 ** 21)), chunked: true }),
    status: 413,
  },
  {
    what: "450 MB that are only declared",
    request: () => json(`/films/${film}/edit`, "{}", { "content-length": "450000000" }),
    status: 413,
  },
  { what: "a list that is too long", request: () => list("a.csv", "x".repeat(2 ** 23)), status: 413 },
  {
    what: "deep nesting",
    request: () => json(`/films/${film}/edit`, "[".repeat(500_000) + "]".repeat(500_000)),
    status: 400,
  },
  { what: "a timeline of deep nesting", request: () => list("a.otio", "[".repeat(2_000_000)), status: 200 },
  {
    what: "an upload larger than the disk",
    request: () => ({
      ...upload("kite.mp4", Buffer.alloc(0)),
      headers: { "tus-resumable": "1.0.0", "upload-length": "900000000000000" },
      body: undefined,
    }),
    status: 507,
  },
  {
    what: "an upload without end",
    request: () => ({
      method: "POST",
      path: "/uploads",
      headers: { "tus-resumable": "1.0.0", "upload-defer-length": "1" },
    }),
    status: 411,
  },
  // No sense.
  ...["", "{", "null", "[]", "0", '"x"', "{}", '{"do":"edit"}', '{"do":"explode","revision":0}', "\u0000"].map(
    (body) => ({
      what: `an edit that is ${JSON.stringify(body)}`,
      request: () => json(`/films/${film}/edit`, body),
      status: 400,
    }),
  ),
  {
    what: "an edit that is no text",
    request: () => ({ ...json(`/films/${film}/edit`, ""), body: Buffer.from([0xff, 0xfe, 0x00]) }),
    status: 400,
  },
  { what: "an edit of no film", request: () => json("/films/nobody/edit", { do: "undo", revision: 0 }), status: 404 },
  {
    what: "an edit that only undo makes: keys",
    request: () => edit({ type: "restore-keys", versionId: version, frames: [1], keys: [] }),
    status: 400,
  },
  {
    what: "an edit that only undo makes: shots",
    request: () => edit({ type: "restore-shots", remove: shots, shots: [], framings: [] }),
    status: 400,
  },
  {
    what: "another film's shot over ours",
    request: () => edit({ type: "restore-shots", remove: [], shots: [shot({ id: otherShot })], framings: [] }),
    status: 400,
  },
  {
    what: "a key past the end",
    request: () => edit({ type: "set-key", versionId: version, key: key({ frame: FRAMES }) }),
    status: 409,
  },
  {
    what: "a key far past the end",
    request: () => edit({ type: "set-key", versionId: version, key: key({ frame: 1e6 }) }),
    status: 409,
  },
  {
    what: "a key outside the picture",
    request: () => edit({ type: "set-key", versionId: version, key: key({ x: 5000 }) }),
    status: 409,
  },
  {
    what: "a key of no version",
    request: () => edit({ type: "set-key", versionId: "nobody", key: key() }),
    status: 409,
  },
  {
    what: "a key with a version that is a path",
    request: () => edit({ type: "set-key", versionId: "../x", key: key() }),
    status: 400,
  },
  {
    what: "a version twice",
    request: () => edit({ type: "add-version", version: { id: version, name: "Again", width: 720, height: 1280 } }),
    status: 409,
  },
  {
    what: "a version without an end",
    request: () =>
      edit({ type: "add-version", version: { id: "v", name: "x".repeat(5000), width: 720, height: 1280 } }),
    status: 400,
  },
  { what: "no version left", request: () => edit({ type: "remove-version", versionId: version }), status: 409 },
  { what: "a split outside", request: () => edit({ type: "split-shot", frame: 5000, kind: "cut" }), status: 409 },
  {
    what: "another film's shot joined to ours",
    request: () => edit({ type: "join-shots", shotIds: [shots[0], otherShot] }),
    status: 409,
  },
  {
    what: "a shot joined to itself",
    request: () => edit({ type: "join-shots", shotIds: [shots[0], shots[0]] }),
    status: 409,
  },
  {
    what: "cuts past the end",
    request: () =>
      edit({ type: "set-transitions", transitions: [{ frame: 5000, kind: "cut", range: { start: 5000, end: 5000 } }] }),
    status: 409,
  },
  {
    what: "cuts that end before they start",
    request: () =>
      edit({ type: "set-transitions", transitions: [{ frame: 50, kind: "cut", range: { start: 60, end: 50 } }] }),
    status: 400,
  },
  {
    what: "two cuts at a frame",
    request: () =>
      edit({
        type: "set-transitions",
        transitions: [50, 50].map((frame) => ({ frame, kind: "cut", range: { start: frame, end: frame } })),
      }),
    status: 409,
  },
  {
    what: "a mark outside the picture",
    request: () =>
      edit({ type: "put-mark", thing: "m", frame: 3, box: { x: 9000, y: 0, width: 5, height: 5 }, follow: null }),
    status: 409,
  },
  {
    what: "somebody who is themselves",
    request: () => edit({ type: "change-person", person: { id: "p1", name: null, mergedInto: "p1" } }),
    status: 409,
  },
  {
    what: "a track joined to itself",
    request: () => edit({ type: "edit-track", trackId: "t", edit: { removed: [], joinedTo: "t" } }),
    status: 409,
  },
  {
    what: "a change to an older state",
    request: () => edit({ type: "set-key", versionId: version, key: key() }, -1),
    status: 409,
  },
  ...["", "explode", "export"].map((intent) => ({
    what: `the intent "${intent}" without more`,
    request: () => form(`/films/${film}`, { intent }),
    status: 400,
  })),
  {
    what: "a render of no version",
    request: () => form(`/films/${film}`, { intent: "export", versionId: "nobody" }),
    status: 404,
  },
  {
    what: "a render of no film",
    request: () => form("/films/nobody", { intent: "export", versionId: version }),
    status: 404,
  },
  { what: "cancelling no job", request: () => form("/?index", { intent: "cancel", jobId: "nobody" }), status: 404 },
  {
    what: "a form that is none",
    request: () => ({
      ...form("/?index", {}),
      headers: { "content-type": "multipart/form-data; boundary=edge" },
      body: "nonsense",
    }),
    status: 400,
  },
  {
    what: "a form of no type",
    request: () => ({ ...form("/?index", {}), headers: {}, body: "nonsense" }),
    status: 400,
  },
  { what: "a list without a file", request: () => form(`/films/${film}/cuts/list`, { list: "text" }), status: 400 },
  { what: "a method that nobody has", request: () => ({ method: "PROPFIND", path: "/" }), status: [400, 404, 405] },
  { what: "a version of another film", request: () => ({ path: `/films/${film}?version=../x` }), status: 200 },
  // What is sent out.
  ...["constructor", "__proto__", "toString", "pdf", "..%2fedl"].map((format) => ({
    what: `cuts as ${format}`,
    request: () => ({ path: `/films/${film}/cuts/${format}` }),
    status: 404,
  })),
  {
    what: "a half-written file",
    request: () => ({ path: `/media/${film}/exports/..%2f.secret.part.mp4` }),
    status: 404,
  },
  {
    what: "a file that is no export",
    request: () => ({ path: `/media/${film}/exports/.secret.part.mp4` }),
    status: 404,
  },
  {
    what: "the database as an export",
    request: () => ({ path: `/media/${film}/exports/..%2f..%2f..%2fglad-pan.db` }),
    status: 404,
  },
  { what: "media by a path", request: () => ({ path: "/media/..%2f..%2f/proxy.mp4" }), status: 404 },
  {
    what: "a range past the end",
    request: () => ({ path: `/media/${film}/original`, headers: { range: "bytes=99999999999-" } }),
    status: 416,
  },
  { what: "an address that is none", request: () => ({ path: "/films/%ff%fe/edit" }), status: [400, 404] },
  {
    what: "a file of the build's folder by a path",
    request: () => ({ path: "/assets/..%2f..%2fserver%2findex.js" }),
    status: NO,
  },
];

for (const { what, request, status } of CASES) {
  test(`${what} is refused and changes nothing`, async () => {
    const before = everything();
    const answer = await send(request());
    expect([status].flat(), answer.body.slice(0, 300)).toContain(answer.status);
    expect(answer.body).not.toContain(server.data);
    expect(answer.body).not.toMatch(/\bat .*\(.*:\d+:\d+\)|node_modules/);
    expect(everything()).toBe(before);
  });
}

test("media is sent as what it is, and pages may load nothing of others", async () => {
  const original = await send({ path: `/media/${film}/original`, headers: { range: "bytes=0-9" } });
  expect([original.status, original.headers["content-type"]]).toEqual([206, "video/mp4"]);
  expect(original.headers["x-content-type-options"]).toBe("nosniff");
  const cuts = await send({ path: `/films/${film}/cuts/edl` });
  expect([cuts.status, cuts.headers["content-disposition"]]).toEqual([200, expect.stringMatching(/^attachment/)]);
  const page = await send({ path: `/films/${film}` });
  const policy = String(page.headers["content-security-policy"]);
  const nonce = /'nonce-([^']+)'/.exec(policy)![1]!;
  const scripts = page.body.match(/<script(?![^>]*\ssrc=)[^>]*>/g)!;
  expect(scripts.length).toBeGreaterThan(1);
  for (const script of scripts) expect(script).toContain(nonce);
  expect(policy).toContain("frame-ancestors 'none'");
  expect(/script-src[^;]*/.exec(policy)![0]).not.toContain("unsafe");
  expect((await send({ path: `/films/${film}` })).headers["content-security-policy"]).not.toBe(policy);
  expect(page.headers["x-frame-options"]).toBe("DENY");
  const options = await send({ method: "OPTIONS", path: "/uploads" });
  expect(options.headers["access-control-allow-origin"]).toBeUndefined();
});

test("what comes after something too long on the same connection is answered", async () => {
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  try {
    for (const chunked of [false, true]) {
      const long = await send({ ...json(`/films/${film}/edit`, "[".repeat(2 ** 21)), chunked, agent });
      expect(long.status).toBe(413);
      expect((await send({ path: `/films/${film}/tracks`, agent })).status).toBe(200);
    }
  } finally {
    agent.destroy();
  }
});

test("an edit that makes sense is still made", async () => {
  const answer = await send(edit({ type: "set-key", versionId: version, key: key() }));
  expect([answer.status, JSON.parse(answer.body)]).toEqual([200, { revision: 1 }]);
});

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
      type: "put-mark",
      thing: "m",
      frame: 3,
      box: { x: 5, y: 5, width: 50, height: 50 },
      follow: { shotId: shots[0], subject: "track:mark-m" },
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
