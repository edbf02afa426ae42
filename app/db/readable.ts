import { ZodError } from "zod";
import { Refusal } from "~/core/basics/refusal";
import { libraryErrors } from "~/texts/library-errors";

/** The stored data of a film is invalid; the film's own file is untouched, and so are the other films. */
export class UnreadableFilm extends Refusal {
  override name = "UnreadableFilm";

  constructor(film: string, cause: Error) {
    super(libraryErrors.stored.unreadable(film), 422);
    this.cause = cause;
  }
}

/**
 * Reads stored data of a film.
 * @param film name of the film
 * @throws UnreadableFilm if it is no JSON, or does not fit its schema
 */
export function readable<T>(film: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof ZodError || error instanceof SyntaxError) throw new UnreadableFilm(film, error);
    throw error;
  }
}

/** Reads stored data; null where it is no JSON, or does not fit its schema. */
export function readableOrNull<T>(read: () => T): T | null {
  try {
    return read();
  } catch (error) {
    if (error instanceof ZodError || error instanceof SyntaxError || error instanceof UnreadableFilm) return null;
    throw error;
  }
}
