import { z } from "zod";
import { FORMAT_IDS } from "../formats/output-formats";

export const JobKind = z.enum(["join", "proxy", "analyse", "follow", "match", "render"]);
export type JobKind = z.infer<typeof JobKind>;
export const JobState = z.enum(["queued", "running", "done", "failed", "cancelled"]);
export type JobState = z.infer<typeof JobState>;

/** A job as pages show it. */
export const JobView = z.object({
  id: z.string(),
  kind: JobKind,
  state: JobState,
  /** What is being done, in words. */
  step: z.string(),
  /** 0 to 1. */
  progress: z.number(),
  error: z.string().nullable(),
  /** Null while it is too early to tell. */
  secondsLeft: z.number().nullable(),
});
export type JobView = z.infer<typeof JobView>;

/** Checks of a finished file. */
export const CHECK_NAMES = ["file", "bars", "pictures", "empty", "length", "loudness"] as const;

/** A check of a finished file, and its result. */
export const ExportCheck = z.object({ name: z.enum(CHECK_NAMES), isGood: z.boolean(), text: z.string() });
export type ExportCheck = z.infer<typeof ExportCheck>;

/** Measurements of a rendered file. */
export const FileFigures = z.object({
  width: z.number(),
  height: z.number(),
  rate: z.string(),
  frames: z.number(),
  durationSeconds: z.number(),
  soundSeconds: z.number().nullable(),
  bytes: z.number(),
  /** Bits per sample; the default is for files made before it was stored. */
  bitDepth: z.number().default(8),
  /** Whether it has a caption track. */
  hasCaptions: z.boolean().default(false),
  /** Names of caption files beside it. */
  sidecars: z.array(z.string()).default([]),
  /** LUFS, where a loudness was set. */
  loudness: z.number().nullable().default(null),
  checks: z.array(ExportCheck).default([]),
});
export type FileFigures = z.infer<typeof FileFigures>;

/** A render as pages show it. */
export const ExportView = JobView.omit({ kind: true }).extend({
  filmId: z.string(),
  versionId: z.string(),
  fileName: z.string(),
  /** Its folder; null for the library's own. */
  folder: z.string().nullable(),
  format: z.enum(FORMAT_IDS),
  /** Whether it waits to be resumed. */
  isPaused: z.boolean(),
  /** Whether the stored request can no longer be read, so that it cannot be repeated. */
  isUnreadable: z.boolean(),
  /** Frames rendered per second; null while it is too early to tell. */
  speed: z.number().nullable(),
  /** Milliseconds since 1970; null until it is done, and for exports made before it was stored. */
  finishedAt: z.number().nullable(),
  /** Null until it is done. */
  figures: FileFigures.nullable(),
  /** Whether what it shows has changed since; false until it is done. */
  isChanged: z.boolean(),
  /** Parts of the picture that were made anew, and of how many. */
  made: z.number(),
  parts: z.number(),
});
export type ExportView = z.infer<typeof ExportView>;

/** Faults that the checks found in a finished file, in words; empty if there are none. */
export const faultsIn = (figures: FileFigures | null): string[] =>
  (figures?.checks ?? []).filter(({ isGood }) => !isGood).map(({ text }) => text);

/** What is being done to a film, and the revisions of what is known of it. */
export const FilmStatus = z.object({
  /** Counts the editor's changes. */
  revision: z.int(),
  /** Counts the findings of analysis and marks. */
  findings: z.int(),
  /** Unfinished jobs, without renders. */
  jobs: z.array(JobView),
  /** Newest first. */
  exports: z.array(ExportView),
});
export type FilmStatus = z.infer<typeof FilmStatus>;
