/** Which films of the library are shown, and in what order. */
import type { Lacking } from "~/core/checks/lacking-pictures";
import type { JobView } from "~/core/film/film-status";
import { frameToSeconds, type Rate } from "~/core/time/rate";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.libraryView;

/** A film as the library shows it. */
export interface FilmView {
  id: string;
  name: string;
  info: { picture: { width: number; height: number }; rate: Rate; frames: number };
  lacking: Lacking;
  shots: number;
  versions: number;
  jobs: JobView[];
  /** Differs from file to file; null where it is not known. */
  fingerprint: string | null;
  /** Whether its file is elsewhere on this machine, not copied into the library. */
  isLinked: boolean;
  /** Whether its file is missing, or not there yet. */
  isMissing: boolean;
  /** Number of clips; 0 for a film that is one file. */
  clips: number;
  /** Whether its file was replaced, and the earlier one can be restored. */
  hasEarlier: boolean;
  putAway: boolean;
  /** Milliseconds since 1970; null while it is not deleted. */
  deletedAt: number | null;
  addedAt: number;
}

/** A film whose stored data cannot be read. */
export interface BrokenFilmView {
  id: string;
  name: string;
  problem: string;
}

/** Bytes used by a film, by purpose. */
export interface SpaceView {
  source: number;
  proxy: number;
  renders: number;
}
export type Spaces = Readonly<Record<string, SpaceView>>;

export const totalSpace = ({ source, proxy, renders }: SpaceView): number => source + proxy + renders;

/** Whether a film has a poster: it is made first, with the proxy. */
export const hasPoster = ({ jobs }: Pick<FilmView, "jobs">): boolean =>
  jobs.every((job) => job.kind !== "proxy" || job.state === "done" || job.progress > 0);

export const SECTIONS = {
  work: t.films,
  away: t.putAway,
  deleted: t.deleted,
} as const;
export type Section = keyof typeof SECTIONS;

export const sectionOf = ({ putAway, deletedAt }: Pick<FilmView, "putAway" | "deletedAt">): Section =>
  deletedAt !== null ? "deleted" : putAway ? "away" : "work";

export const ORDERS = {
  newest: t.newestFirst,
  name: t.byName,
  length: t.longestFirst,
  space: t.largestFirst,
} as const;
export type Order = keyof typeof ORDERS;

const byName = new Intl.Collator(undefined, { numeric: true, sensitivity: "base" }).compare;
const seconds = ({ info: { frames, rate } }: FilmView) => frameToSeconds(frames, rate);

/** Films of a section whose names contain every word of the search, in order. */
export function shownFilms(
  films: readonly FilmView[],
  { section, search, order }: { section: Section; search: string; order: Order },
  spaces: Spaces,
): FilmView[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const space = ({ id }: FilmView) => (spaces[id] ? totalSpace(spaces[id]) : 0);
  const compare: Record<Order, (a: FilmView, b: FilmView) => number> = {
    newest: (a, b) => b.addedAt - a.addedAt,
    name: (a, b) => byName(a.name, b.name),
    length: (a, b) => seconds(b) - seconds(a),
    space: (a, b) => space(b) - space(a),
  };
  return films
    .filter((film) => sectionOf(film) === section && words.every((word) => film.name.toLowerCase().includes(word)))
    .sort(compare[order]);
}
