/** Requests that nobody should send, and what is answered. */
import { CLIP, edit, FRAMES, key, known } from "./library";
import { form, json, type RawRequest, upload } from "../support/raw-request";

const shot = (change: object) => ({
  id: known.shots[0],
  start: 0,
  end: 45,
  begins: "cut",
  mixed: { start: 0, end: 0 },
  carry: false,
  follow: { kind: "auto" },
  name: null,
  excluded: false,
  protect: null,
  ...change,
});
const list = (name: string, content: string): RawRequest => ({
  method: "POST",
  path: `/films/${known.film}/cuts/list`,
  headers: { "content-type": "multipart/form-data; boundary=edge" },
  body: `--edge\r\nContent-Disposition: form-data; name="list"; filename="${name}"\r\nContent-Type: text/plain\r\n\r\n${content}\r\n--edge--\r\n`,
});

export interface Case {
  what: string;
  request: () => RawRequest;
  status: number | number[];
}
const NO = [403, 404, 405];

export const CASES: Case[] = [
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
  ...["%2e%2e%2fglad-pan.db", "a".repeat(32), "..%2f..%2fetc%2fpasswd"].map((id) => ({
    what: `what has arrived of the upload "${id.slice(0, 20)}"`,
    request: () => ({ path: `/arrivals/${id}` }),
    status: 404,
  })),
  {
    what: "a picture of no upload",
    request: () => ({ path: `/arrivals/${"a".repeat(32)}/0.jpg` }),
    status: 404,
  },
  // Folders that nobody has opened.
  ...["/", "/etc", "../..", "~"].map((path) => ({
    what: `the folder "${path}"`,
    request: () => ({ path: `/media-folders?path=${encodeURIComponent(path)}` }),
    status: 404,
  })),
  // How a film is taken.
  ...["-1", "1.5", "7", "none", "1e99"].map((index) => ({
    what: `the sound "${index}"`,
    request: () => form(`/films/${known.film}`, { intent: "sound", index }),
    status: [400, 422],
  })),
  {
    what: "half pictures of a film that has none",
    request: () => form(`/films/${known.film}`, { intent: "fields" }),
    status: 422,
  },
  // Who speaks, and to whom.
  { what: "another host's name", request: () => ({ path: "/", headers: { host: "films.example" } }), status: 403 },
  {
    what: "another host's name on our port",
    request: () => ({ path: `/films/${known.film}`, headers: { host: `127.0.0.1.films.example:4170` } }),
    status: 403,
  },
  { what: "no host", request: () => ({ path: "/", headers: { host: "" } }), status: [400, 403] },
  ...["http://127.0.0.1/", "http://films.example/", "*"].map((path) => ({
    what: `the whole address "${path}"`,
    request: () => ({ path }),
    status: 400,
  })),
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
        ...edit({ type: "set-key", versionId: known.version, key: key() }),
        headers: { "content-type": "application/json", ...headers },
      }),
      status: 403,
    },
    {
      what: `a removal with ${JSON.stringify(headers)}`,
      request: () => form("/?index", { intent: "delete", filmId: known.film }, headers),
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
    request: () => json(`/films/${known.film}/edit`, { do: "undo", revision: 0 }, { "content-type": type }),
    status: 415,
  })),
  // Too much.
  {
    what: "an edit that is declared too long",
    request: () => json(`/films/${known.film}/edit`, `[${"[".repeat(2 ** 20)}`),
    status: 413,
  },
  {
    what: "an edit that turns out too long",
    request: () => ({ ...json(`/films/${known.film}/edit`, "[".repeat(2 ** 21)), chunked: true }),
    status: 413,
  },
  {
    what: "450 MB that are only declared",
    request: () => json(`/films/${known.film}/edit`, "{}", { "content-length": "450000000" }),
    status: 413,
  },
  ...["application/json", "application/x-www-form-urlencoded"].map((type) => ({
    what: `a file of one's own as ${type}`,
    request: () => ({
      method: "POST",
      path: "/own-files",
      headers: { "content-type": type },
      body: "[".repeat(2 ** 21),
      chunked: true,
    }),
    status: type.endsWith("json") ? 400 : 413,
  })),
  { what: "a list that is too long", request: () => list("a.csv", "x".repeat(2 ** 23)), status: 413 },
  {
    what: "deep nesting",
    request: () => json(`/films/${known.film}/edit`, "[".repeat(500_000) + "]".repeat(500_000)),
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
      request: () => json(`/films/${known.film}/edit`, body),
      status: 400,
    }),
  ),
  {
    what: "an edit that is no text",
    request: () => ({ ...json(`/films/${known.film}/edit`, ""), body: Buffer.from([0xff, 0xfe, 0x00]) }),
    status: 400,
  },
  { what: "an edit of no film", request: () => json("/films/nobody/edit", { do: "undo", revision: 0 }), status: 404 },
  {
    what: "an edit that only undo makes: keys",
    request: () => edit({ type: "restore-keys", versionId: known.version, frames: [1], keys: [] }),
    status: 400,
  },
  {
    what: "an edit that only undo makes: shots",
    request: () => edit({ type: "restore-shots", remove: known.shots, shots: [], framings: [] }),
    status: 400,
  },
  {
    what: "another film's shot over ours",
    request: () => edit({ type: "restore-shots", remove: [], shots: [shot({ id: known.otherShot })], framings: [] }),
    status: 400,
  },
  {
    what: "a key past the end",
    request: () => edit({ type: "set-key", versionId: known.version, key: key({ frame: FRAMES }) }),
    status: 409,
  },
  {
    what: "a key far past the end",
    request: () => edit({ type: "set-key", versionId: known.version, key: key({ frame: 1e6 }) }),
    status: 409,
  },
  {
    what: "a key outside the picture",
    request: () => edit({ type: "set-key", versionId: known.version, key: key({ x: 5000 }) }),
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
    request: () =>
      edit({ type: "add-version", version: { id: known.version, name: "Again", width: 720, height: 1280 } }),
    status: 409,
  },
  {
    what: "a version without an end",
    request: () =>
      edit({ type: "add-version", version: { id: "v", name: "x".repeat(5000), width: 720, height: 1280 } }),
    status: 400,
  },
  { what: "no version left", request: () => edit({ type: "remove-version", versionId: known.version }), status: 409 },
  { what: "a split outside", request: () => edit({ type: "split-shot", frame: 5000, kind: "cut" }), status: 409 },
  {
    what: "another film's shot joined to ours",
    request: () => edit({ type: "join-shots", shotIds: [known.shots[0], known.otherShot] }),
    status: 409,
  },
  {
    what: "a shot joined to itself",
    request: () => edit({ type: "join-shots", shotIds: [known.shots[0], known.shots[0]] }),
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
    request: () => edit({ type: "put-mark", thing: "m", frame: 3, box: { x: 9000, y: 0, width: 5, height: 5 } }),
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
    request: () => edit({ type: "set-key", versionId: known.version, key: key() }, -1),
    status: 409,
  },
  ...["", "explode", "export"].map((intent) => ({
    what: `the intent "${intent}" without more`,
    request: () => form(`/films/${known.film}`, { intent }),
    status: 400,
  })),
  {
    what: "a render of no version",
    request: () => form(`/films/${known.film}`, { intent: "export", versionIds: "nobody" }),
    status: 404,
  },
  {
    what: "a render of no film",
    request: () => form("/films/nobody", { intent: "export", versionIds: known.version }),
    status: 404,
  },
  ...[
    { x: -5, y: 0, width: 100, height: 100 },
    { x: 0, y: 0, width: 5000, height: 100 },
    { x: 0, y: 0, width: 8, height: 100 },
    { x: 0, y: 0, width: 0, height: 0 },
  ].map((active) => ({
    what: `an active area of ${JSON.stringify(active)}`,
    request: () => edit({ type: "change-shots", shotIds: [known.shots[0]], change: { active } }),
    status: [400, 409, 422],
  })),
  { what: "a link to nowhere", request: () => form("/?index", { intent: "link", path: "" }), status: 400 },
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
  {
    what: "a list without a file",
    request: () => form(`/films/${known.film}/cuts/list`, { list: "text" }),
    status: 400,
  },
  { what: "a method that nobody has", request: () => ({ method: "PROPFIND", path: "/" }), status: [400, 404, 405] },
  { what: "a version of another film", request: () => ({ path: `/films/${known.film}?version=../x` }), status: 200 },
  // What is sent out.
  ...["constructor", "__proto__", "toString", "pdf", "..%2fedl"].map((format) => ({
    what: `cuts as ${format}`,
    request: () => ({ path: `/films/${known.film}/cuts/${format}` }),
    status: 404,
  })),
  {
    what: "a half-written file",
    request: () => ({ path: `/media/${known.film}/exports/..%2f.secret.part.mp4` }),
    status: 404,
  },
  {
    what: "a file that is no export",
    request: () => ({ path: `/media/${known.film}/exports/.secret.part.mp4` }),
    status: 404,
  },
  {
    what: "the database as an export",
    request: () => ({ path: `/media/${known.film}/exports/..%2f..%2f..%2fglad-pan.db` }),
    status: 404,
  },
  { what: "media by a path", request: () => ({ path: "/media/..%2f..%2f/proxy/0.mp4" }), status: 404 },
  { what: "no piece", request: () => ({ path: `/media/${known.film}/proxy/..%2f..%2fsource.mp4` }), status: 404 },
  { what: "a piece past the end", request: () => ({ path: `/media/${known.film}/proxy/9999.mp4` }), status: 404 },
  {
    what: "a range past the end",
    request: () => ({ path: `/media/${known.film}/proxy/0.mp4`, headers: { range: "bytes=99999999999-" } }),
    status: 416,
  },
  { what: "an address that is none", request: () => ({ path: "/films/%ff%fe/edit" }), status: [400, 404] },
  {
    what: "a file of the build's folder by a path",
    request: () => ({ path: "/assets/..%2f..%2fserver%2findex.js" }),
    status: NO,
  },
];
