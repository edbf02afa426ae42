import { ZodError } from "zod";
import { Refusal } from "~/core/basics/refusal";
import { libraryErrors } from "~/texts/library-errors";

/** What is stored of a film makes no sense any more; the film's own file is untouched, and so are the other films. */
export class UnreadableFilm extends Refusal {
  override name = "UnreadableFilm";

  constructor(film: string, cause: Error) {
    super(libraryErrors.stored.unreadable(film), 422);
    this.cause = cause;
  }
}

/**
 * Reads something that is stored of a film.
 *
 * @param film what the film is called
 * @throws UnreadableFilm if that is no JSON, or not of its shape
 */
export function readable<T>(film: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof ZodError || error instanceof SyntaxError) throw new UnreadableFilm(film, error);
    throw error;
  }
}

/** Reads something that is stored; null where it is no JSON, or not of its shape. */
export function readableOrNull<T>(read: () => T): T | null {
  try {
    return read();
  } catch (error) {
    if (error instanceof ZodError || error instanceof SyntaxError || error instanceof UnreadableFilm) return null;
    throw error;
  }
}
