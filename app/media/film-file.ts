import type { FilmInfo } from "~/core/film/film-info";

/** A film that was looked into. */
export interface FilmFile {
  file: string;
  /** What the film is called in messages. */
  name: string;
  info: FilmInfo;
}
