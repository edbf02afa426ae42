/** What each kind of job is asked for, and what comes of it. It is read here, where jobs come from the database. */
import { z } from "zod";
import { FilmInfo } from "~/core/film/film-info";
import { FileFigures, type JobKind } from "~/core/film/film-status";
import { OutputSettings, USUAL_OUTPUT } from "~/core/formats/output-settings";
import { Id } from "~/core/basics/ids";
import { ShotMatch } from "~/core/shots/match-shots";

/** A file that an export has written, by what it is known. */
export const WrittenFile = z.object({
  name: z.string(),
  bytes: z.number(),
  /** When it was last written to, in milliseconds since 1970. */
  modifiedAt: z.number(),
  fingerprint: z.string(),
});
export type WrittenFile = z.infer<typeof WrittenFile>;

const RenderAsked = z.object({
  versionId: Id,
  fileName: z.string(),
  /** The folder that it is written to; null for the library's own. */
  folder: z.string().nullable().default(null),
  output: OutputSettings.default(USUAL_OUTPUT),
  /** Frames that it is going to have; 0 where that was not counted. */
  frames: z.int().min(0).default(0),
  /** Whether a file that has its name when it is finished is replaced; else it gets a number. */
  replaces: z.boolean().default(false),
});
export type RenderAsked = z.infer<typeof RenderAsked>;

const RenderResult = FileFigures.extend({
  /** Which state of the film it shows: its revision, and what of it decides the file, as a word. */
  revision: z.int().default(0),
  print: z.string().default(""),
  /** Parts of the picture that were made anew, and all of them. */
  made: z.int().default(1),
  parts: z.int().default(1),
  /** The name that the file has got; the one that was asked for if it was left out. */
  fileName: z.string().optional(),
  /** What was written, the film first; nothing for what was made before this was kept. */
  written: z.array(WrittenFile).default([]),
});
export type RenderResult = z.infer<typeof RenderResult>;

const NOTHING = z.object({}).default({});
/** What comes of it is in the library, and of the job only numbers that nobody reads. */
const work = <K extends JobKind>(kind: K) => z.object({ kind: z.literal(kind), asked: NOTHING, result: z.unknown() });

/** What a job is asked for and what came of it so far, by its kind. */
export const JobWork = z.discriminatedUnion("kind", [
  work("proxy"),
  work("analyse"),
  work("join"),
  z.object({
    kind: z.literal("follow"),
    /** A marked thing, by all that its track follows from. */
    asked: z.object({ basis: z.string() }),
    result: z.unknown(),
  }),
  z.object({
    kind: z.literal("match"),
    /** A new export that is to take the place of a film's file, and the file's name. */
    asked: z.object({ file: z.string(), name: z.string(), info: FilmInfo }),
    /** Where the shots of the film are in it. */
    result: z.object({ matches: z.array(ShotMatch) }).nullable(),
  }),
  z.object({ kind: z.literal("render"), asked: RenderAsked, result: RenderResult.nullable() }),
]);
export type JobWork = z.infer<typeof JobWork>;
export type WorkOf<K extends JobKind> = Extract<JobWork, { kind: K }>;

type Given = z.input<typeof JobWork>;
type WithoutResult<Work> = Work extends Given ? Omit<Work, "result"> : never;
/** Work that is asked for. */
export type NewWork = WithoutResult<Given>;
