/** What a server is given to do on the worst day, and what it has acknowledged of it. */
import { timeCaptions } from "~/core/captions/time-captions";
import { USUAL_CAPTIONS } from "~/core/captions/caption-settings";
import { form, goOnUpload, beginUpload, json } from "../../tests/support/raw-request";
import { CLIP, CLIP_FRAMES, type Library, revisionIn } from "./library";

/** What a server has answered for, and must have after whatever happens to it. */
export interface Acknowledged {
  /** The last change of each film: its revision and where the key is that it has put. */
  edits: Map<string, { revision: number; x?: number }>;
  films: Set<string>;
  /** How many renders were asked for. */
  exports: number;
  /** Texts of captions that were timed, by film. */
  captions: Map<string, string[]>;
  /** An upload that has not come whole, and how much of it has been taken. */
  upload: { location: string; taken: number } | null;
}

export const nothingAcknowledged = (): Acknowledged => ({
  edits: new Map(),
  films: new Set(),
  exports: 0,
  captions: new Map(),
  upload: null,
});

const RATE = { num: 30, den: 1 };
const SENTENCES = ["Hold on to it", "The wind turns over the water", "Land"];

/** A film with two small versions, so that a render of it takes moments and not minutes. */
export async function addFilm(library: Library, done: Acknowledged, name: string): Promise<void> {
  const id = await library.addFilm(name);
  done.films.add(id);
  const [tall] = library.versionsOf(id);
  const change = { width: 90, height: 160 };
  const smaller = await library.demand(
    200,
    library.change(id, library.revisionOf(id), { type: "change-version", versionId: tall!, change }),
  );
  const copy = { type: "duplicate-version", versionId: tall!, id: `${id}-2`, name: "Another" } as const;
  await library.demand(200, library.change(id, revisionIn(smaller), copy));
}

/** Both versions of a film at once. */
export async function exportAll(library: Library, done: Acknowledged, filmId: string): Promise<void> {
  const versions = library.versionsOf(filmId);
  await library.demand(200, form(`/films/${filmId}`, { intent: "export", versionIds: versions.join(",") }));
  done.exports += versions.length;
}

/** Two films become one. */
export async function join(library: Library, done: Acknowledged, filmIds: string[], name: string): Promise<void> {
  const { body } = await library.demand(200, json("/join", { filmIds, name }));
  const { filmId, error } = JSON.parse(body) as { filmId: string | null; error: string | null };
  if (filmId === null) throw new Error(`the films were not joined: ${error}`);
  done.films.add(filmId);
}

/** A text is laid along what is heard in a film, as the desk does it. */
export async function timeText(library: Library, done: Acknowledged, filmId: string): Promise<void> {
  const { body } = await library.demand(200, { path: `/films/${filmId}/speech` });
  const segments = (JSON.parse(body) as { segments: { start: number; end: number }[] | null }).segments ?? [];
  const range = { start: 0, end: CLIP_FRAMES };
  const said = SENTENCES.map((text) => ({ text, speaker: null }));
  const timed = timeCaptions(said, { segments, turns: [] }, range, RATE, USUAL_CAPTIONS.rules);
  const put = timed.map((caption, i) => ({ ...caption, id: `c${i}` }));
  const removed = done.captions.has(filmId) ? put.map(({ id }) => id) : [];
  const command = { type: "change-captions", removed, put, how: "timed" } as const;
  await library.demand(200, library.change(filmId, library.revisionOf(filmId), command));
  done.captions.set(filmId, SENTENCES);
}

/** The first half of a film comes; the rest is sent when the server is there again. */
export async function uploadHalf(library: Library, done: Acknowledged, name: string): Promise<void> {
  const { headers } = await library.demand(201, beginUpload(name, CLIP.length));
  const location = String(headers.location);
  done.upload = { location, taken: 0 };
  const half = Math.floor(CLIP.length / 2);
  await library.demand(204, goOnUpload(location, 0, CLIP.subarray(0, half)));
  done.upload = { location, taken: half };
}

/** How much of an upload the server says that it has, in bytes. */
export async function arrivedOf(library: Library, location: string): Promise<number> {
  const headers = { "tus-resumable": "1.0.0" };
  const answer = await library.demand(200, { method: "HEAD", path: location, headers });
  return Number(answer.headers["upload-offset"]);
}

/** Goes on with an upload where the server says that it is; what is wrong with what it says, if anything is. */
export async function finishUpload(library: Library, done: Acknowledged): Promise<string | null> {
  if (!done.upload) return null;
  const { location, taken } = done.upload;
  const offset = await arrivedOf(library, location);
  if (offset < taken) return `${taken} bytes of an upload were acknowledged, ${offset} are there`;
  const end = await library.demand(204, goOnUpload(location, offset, CLIP.subarray(offset)));
  done.films.add(String(end.headers["glad-pan-film"]));
  done.upload = null;
  return null;
}
