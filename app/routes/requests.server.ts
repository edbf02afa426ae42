/** Reading of requests by routes, with limits and schemas. */
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

/** Largest reasonable edit or form. */
export const SMALL_BODY_BYTES = 2 ** 20;
/** Largest reasonable cut list. */
export const LIST_BODY_BYTES = 8 * 2 ** 20;

/** What to throw for an error: for a refusal, an answer with its status and message. */
const answerFor = (error: unknown): unknown =>
  error instanceof Refusal ? refusal(error.status, error.sentence) : error;

/** Turns a refusal of `work` into an answer with its status and message. */
export function orRefuse<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    throw answerFor(error);
  }
}

/** The same for asynchronous work. */
export async function orRefuseLater<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    throw answerFor(error);
  }
}

/**
 * A film by its id from a request.
 * @throws a response with status 404 if there is none or it is deleted, 422 if its stored data cannot be read
 */
export function requireFilm(id: string): FilmRow {
  const film = requireEvenDeleted(id);
  if (film.deletedAt !== null) throw refusal(404, t.isDeletedBringItBack(film.name));
  return film;
}

/** The same for a film that may be deleted. */
export function requireEvenDeleted(id: string): FilmRow {
  const film = isId(id) ? orRefuse(() => findFilm(db(), id)) : null;
  if (!film) throw refusal(404, t.thereIsNoSuchFilm);
  return film;
}

const tooLarge = () => refusal(413, t.thisIsTooLarge);

/**
 * The body of a request as a stream.
 * @throws a response with status 413 as soon as it is known to exceed the limit, also from reading it
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
      // The rest is discarded unread. Cancelling it would close the connection before the answer is sent.
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
 * Validates data from a request.
 * @throws a response with status 400 that says in one line what is wrong
 */
export function requireShape<T>(schema: z.ZodType<T>, value: unknown): T {
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  const faults = parsed.error.issues.map(({ path, message }) => [...path, message].join(": "));
  throw refusal(400, faults.join("; "));
}

/**
 * Reads JSON with a schema.
 * @throws a response with status 415 for another content type, 400 for invalid data
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
 * @throws a response with status 400 if it is none
 */
export async function readForm(request: Request, limit = SMALL_BODY_BYTES): Promise<FormData> {
  const type = request.headers.get("content-type") ?? "";
  // Checked first: a form is held in memory, and only one with files needs much of it.
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
 * Reads a form with a schema.
 * @throws a response with status 400 for invalid data
 */
export async function readIntent<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  return requireShape(schema, Object.fromEntries(await readForm(request)));
}

/** Why `work` failed, as a sentence for people; null if it succeeded. */
export async function whyNot(work: () => Promise<unknown>): Promise<string | null> {
  try {
    await work();
    return null;
  } catch (error) {
    if (error instanceof Refusal) return error.sentence;
    throw error;
  }
}

/** Lets `work` change something; on a full disk the answer says so with status 507. */
export async function orDiskFull<T>(work: () => T | Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (isDiskFull(error, dataFolder())) throw refusal(507, t.freeSomeSpaceAndTry(diskIsFull()));
    throw error;
  }
}
