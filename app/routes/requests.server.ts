/** How routes read what they are sent: as much as makes sense, and no more. */
import { createWriteStream } from "node:fs";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { ReadableStream as NodeReadableStream } from "node:stream/web";
import { data } from "react-router";
import { z } from "zod";
import { findFilm, type FilmRow } from "~/db/films.server";
import { asSentence } from "~/core/sentence";
import { Refusal } from "~/core/refusal";
import { isDiskFull } from "~/disk/disk-space.server";
import { isId } from "~/core/ids";
import { FilmError } from "~/media/film-tool.server";
import { dataFolder, db, diskIsFull } from "~/jobs/workplace.server";
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
  error instanceof Refusal ? refusal(error.status, asSentence(error.message)) : error;

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
  const film = requireKept(id);
  if (film.deletedAt !== null) throw refusal(404, t.isDeletedBringItBack(film.name));
  return film;
}

/** A film that may be deleted for now, in the same way. */
export function requireKept(id: string): FilmRow {
  const film = isId(id) ? orRefuse(() => findFilm(db(), id)) : null;
  if (!film) throw refusal(404, t.thereIsNoSuchFilm);
  return film;
}

/**
 * Reads the body of a request.
 *
 * @throws a response with status 413 as soon as it is known to be longer than the limit
 */
async function readBody(request: Request, limit: number): Promise<Uint8Array<ArrayBuffer>> {
  const tooLarge = () => refusal(413, t.thisIsTooLarge);
  if (Number(request.headers.get("content-length") ?? 0) > limit) throw tooLarge();
  const chunks: Uint8Array[] = [];
  let length = 0;
  const reader = request.body?.getReader();
  for (let next = await reader?.read(); next?.value; next = await reader?.read()) {
    length += next.value.length;
    // What still comes is thrown away unread. Were it cancelled, the connection would end before the answer is there.
    if (length > limit) throw tooLarge();
    chunks.push(next.value);
  }
  return Uint8Array.from(Buffer.concat(chunks));
}

/**
 * Writes the body of a request to a file.
 *
 * @throws a response with status 413 as soon as it is known to be longer than the limit
 */
export async function readBodyTo(request: Request, file: string, limit: number): Promise<void> {
  const tooLarge = () => refusal(413, t.thisIsTooLarge);
  if (Number(request.headers.get("content-length") ?? 0) > limit) throw tooLarge();
  let length = 0;
  const counted = new TransformStream<Uint8Array, Uint8Array>({
    transform(chunk, to) {
      length += chunk.length;
      if (length <= limit) to.enqueue(chunk);
    },
  });
  const body = request.body?.pipeThrough(counted) ?? new ReadableStream<Uint8Array>();
  await pipeline(Readable.fromWeb(body as NodeReadableStream), createWriteStream(file));
  if (length > limit) throw tooLarge();
}

/**
 * Reads JSON of a known shape.
 *
 * @throws a response with status 415 for another content type, 400 for anything else than that shape
 */
export async function readJson<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  const type = request.headers.get("content-type")?.split(";")[0]!.trim().toLowerCase();
  if (type !== "application/json") throw refusal(415, t.aChangeIsSentAs);
  const text = new TextDecoder().decode(await readBody(request, SMALL_BODY_BYTES));
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw refusal(400, t.thisIsNotJson);
  }
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw refusal(400, z.prettifyError(parsed.error));
  return parsed.data;
}

/**
 * Reads a form.
 *
 * @throws a response with status 400 if it is none
 */
export async function readForm(request: Request, limit = SMALL_BODY_BYTES): Promise<FormData> {
  const body = await readBody(request, limit);
  const headers = { "content-type": request.headers.get("content-type") ?? "" };
  try {
    return await new Response(body, { headers }).formData();
  } catch {
    throw refusal(400, t.thisIsNotAForm);
  }
}

/**
 * Reads a form of a known shape.
 *
 * @throws a response with status 400 for anything else than that shape
 */
export async function readIntent<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  const parsed = schema.safeParse(Object.fromEntries(await readForm(request)));
  if (!parsed.success) throw refusal(400, z.prettifyError(parsed.error));
  return parsed.data;
}

/** Why `work` was not done, as a sentence for people; null if it was. */
export async function whyNot(work: () => Promise<unknown>): Promise<string | null> {
  try {
    await work();
    return null;
  } catch (error) {
    if (error instanceof Refusal || error instanceof FilmError) return asSentence(error.message);
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
