/** Request and result of each kind of job, parsed here, where jobs come from the database. */
import { z } from "zod";
import { FilmInfo } from "~/core/film/film-info";
import { FileFigures, type JobKind } from "~/core/film/film-status";
import { OutputSettings, USUAL_OUTPUT } from "~/core/formats/output-settings";
import { Id } from "~/core/basics/ids";
import { ShotMatch } from "~/core/shots/match-shots";

/** A file written by an export, with what identifies it. */
export const WrittenFile = z.object({
  name: z.string(),
  bytes: z.number(),
  /** Time of its last change, in milliseconds since 1970. */
  modifiedAt: z.number(),
  fingerprint: z.string(),
});
export type WrittenFile = z.infer<typeof WrittenFile>;

const RenderAsked = z.object({
  versionId: Id,
  fileName: z.string(),
  /** Its folder; null for the library's own. */
  folder: z.string().nullable().default(null),
  output: OutputSettings.default(USUAL_OUTPUT),
  /** Expected number of frames; 0 where it was not counted. */
  frames: z.int().min(0).default(0),
  /** Whether it replaces a file of its name; otherwise it gets a number. */
  replaces: z.boolean().default(false),
});
export type RenderAsked = z.infer<typeof RenderAsked>;

const RenderResult = FileFigures.extend({
  /** The state of the film that it shows: revision, and a digest of what determines the file. */
  revision: z.int().default(0),
  print: z.string().default(""),
  /** Parts of the picture that were made anew, and all of them. */
  made: z.int().default(1),
  parts: z.int().default(1),
  /** Name of the file; that requested if it was left out. */
  fileName: z.string().optional(),
  /** Written files, the film first; empty for exports made before it was stored. */
  written: z.array(WrittenFile).default([]),
});
export type RenderResult = z.infer<typeof RenderResult>;

const NOTHING = z.object({}).default({});
/** Its result is in the library, and the job only has numbers that nobody reads. */
const work = <K extends JobKind>(kind: K) => z.object({ kind: z.literal(kind), asked: NOTHING, result: z.unknown() });

/** Request and result so far of a job, by its kind. */
export const JobWork = z.discriminatedUnion("kind", [
  work("proxy"),
  work("analyse"),
  work("join"),
  z.object({
    kind: z.literal("follow"),
    /** A marked thing, by everything that determines its track. */
    asked: z.object({ basis: z.string() }),
    result: z.unknown(),
  }),
  z.object({
    kind: z.literal("match"),
    /** A new export that is to replace a film's file, and its name. */
    asked: z.object({ file: z.string(), name: z.string(), info: FilmInfo }),
    /** Places of the film's shots in it. */
    result: z.object({ matches: z.array(ShotMatch) }).nullable(),
  }),
  z.object({ kind: z.literal("render"), asked: RenderAsked, result: RenderResult.nullable() }),
]);
export type JobWork = z.infer<typeof JobWork>;
export type WorkOf<K extends JobKind> = Extract<JobWork, { kind: K }>;

type Given = z.input<typeof JobWork>;
type WithoutResult<Work> = Work extends Given ? Omit<Work, "result"> : never;
/** A request for work. */
export type NewWork = WithoutResult<Given>;
