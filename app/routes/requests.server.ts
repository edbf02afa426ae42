/** How routes read what they are sent: as much as makes sense, and no more. */
import { createWriteStream } from "node:fs";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { ReadableStream as NodeReadableStream } from "node:stream/web";
import { data } from "react-router";
import type { z } from "zod";
import { findFilm, type FilmRow } from "~/db/films.server";
import { Refusal } from "~/core/basics/refusal";
import { isDiskFull } from "~/disk/disk-space.server";
import { isId } from "~/core/basics/ids";
import { dataFolder, db, diskIsFull } from "~/db/workplace.server";
import { commonTexts } from "~/texts/common";

const t = commonTexts.requestsRoute;

/** An answer with a sentence for people, to be thrown. */
export const refusal = (status: number, message: string) => data(message, { status });

/** The largest edit or form that makes sense. */
export const SMALL_BODY_BYTES = 2 ** 20;
/** The largest list of cuts that makes sense. */
export const LIST_BODY_BYTES = 8 * 2 ** 20;

/** What is to be thrown for an error: for a refusal an answer with its status that says why. */
const answerFor = (error: unknown): unknown =>
  error instanceof Refusal ? refusal(error.status, error.sentence) : error;

/** Lets `work` be refused: the answer then has the refusal's status and says why. */
export function orRefuse<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    throw answerFor(error);
  }
}

/** The same for work that takes its time. */
export async function orRefuseLater<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    throw answerFor(error);
  }
}

/**
 * A film by its id, as it came from outside.
 *
 * @throws a response with status 404 if there is none or it is deleted, 422 if what is stored of it cannot be read
 */
export function requireFilm(id: string): FilmRow {
  const film = requireEvenDeleted(id);
  if (film.deletedAt !== null) throw refusal(404, t.isDeletedBringItBack(film.name));
  return film;
}

/** A film that may be deleted for now, in the same way. */
export function requireEvenDeleted(id: string): FilmRow {
  const film = isId(id) ? orRefuse(() => findFilm(db(), id)) : null;
  if (!film) throw refusal(404, t.thereIsNoSuchFilm);
  return film;
}

const tooLarge = () => refusal(413, t.thisIsTooLarge);

/**
 * The body of a request as it comes.
 *
 * @throws a response with status 413 as soon as it is known to be longer than the limit, also to whoever reads it
 */
function bodyWithin(request: Request, limit: number): ReadableStream<Uint8Array<ArrayBuffer>> {
  if (Number(request.headers.get("content-length") ?? 0) > limit) throw tooLarge();
  const reader = request.body?.getReader();
  let length = 0;
  return new ReadableStream({
    async pull(to) {
      const next = await reader?.read();
      if (!next?.value) return to.close();
      length += next.value.length;
      // What still comes is thrown away unread. Were it cancelled, the connection would end before the answer is there.
      if (length > limit) to.error(tooLarge());
      else to.enqueue(next.value);
    },
  });
}

/** Writes the body of a request to a file; throws as `bodyWithin`. */
export async function readBodyTo(request: Request, file: string, limit: number): Promise<void> {
  const body = bodyWithin(request, limit);
  await pipeline(Readable.fromWeb(body as NodeReadableStream), createWriteStream(file));
}

/**
 * What was sent, if it has a known shape.
 *
 * @throws a response with status 400 that says in one line what has another
 */
export function requireShape<T>(schema: z.ZodType<T>, value: unknown): T {
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  const faults = parsed.error.issues.map(({ path, message }) => [...path, message].join(": "));
  throw refusal(400, faults.join("; "));
}

/**
 * Reads JSON of a known shape.
 *
 * @throws a response with status 415 for another content type, 400 for anything else than that shape
 */
export async function readJson<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  const type = request.headers.get("content-type")?.split(";")[0]!.trim().toLowerCase();
  if (type !== "application/json") throw refusal(415, t.needsJsonType);
  const text = await new Response(bodyWithin(request, SMALL_BODY_BYTES)).text();
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw refusal(400, t.thisIsNotJson);
  }
  return requireShape(schema, value);
}

/**
 * Reads a form.
 *
 * @throws a response with status 400 if it is none
 */
export async function readForm(request: Request, limit = SMALL_BODY_BYTES): Promise<FormData> {
  const type = request.headers.get("content-type") ?? "";
  // Asked first: a form is kept in memory, and only one of files needs much of it.
  const hasFiles = /^multipart\/form-data\b/i.test(type);
  if (!hasFiles && !/^application\/x-www-form-urlencoded\b/i.test(type)) throw refusal(400, t.thisIsNotAForm);
  const body = bodyWithin(request, hasFiles ? limit : Math.min(limit, SMALL_BODY_BYTES));
  try {
    return await new Response(body, { headers: { "content-type": type } }).formData();
  } catch (error) {
    throw error instanceof TypeError ? refusal(400, t.thisIsNotAForm) : error;
  }
}

/**
 * Reads a form of a known shape.
 *
 * @throws a response with status 400 for anything else than that shape
 */
export async function readIntent<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  return requireShape(schema, Object.fromEntries(await readForm(request)));
}

/** Why `work` was not done, as a sentence for people; null if it was. */
export async function whyNot(work: () => Promise<unknown>): Promise<string | null> {
  try {
    await work();
    return null;
  } catch (error) {
    if (error instanceof Refusal) return error.sentence;
    throw error;
  }
}

/** Lets `work` change something; where the disk is full, the answer says so with status 507. */
export async function orDiskFull<T>(work: () => T | Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (isDiskFull(error, dataFolder())) throw refusal(507, t.freeSomeSpaceAndTry(diskIsFull()));
    throw error;
  }
}
