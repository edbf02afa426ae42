import type { FilmInfo } from "~/core/film/film-info";

/** A film that was probed. */
export interface FilmFile {
  file: string;
  /** Name of the film in messages. */
  name: string;
  info: FilmInfo;
}
