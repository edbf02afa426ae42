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
  /** Null while it is too early to say. */
  secondsLeft: z.number().nullable(),
});
export type JobView = z.infer<typeof JobView>;

/** What is looked at in a finished file. */
export const CHECK_NAMES = ["file", "bars", "pictures", "empty", "length", "loudness"] as const;

/** What was looked at in a finished file, and what came of it. */
export const ExportCheck = z.object({ name: z.enum(CHECK_NAMES), isGood: z.boolean(), text: z.string() });
export type ExportCheck = z.infer<typeof ExportCheck>;

/** What a rendered file was measured to be. */
export const FileFigures = z.object({
  width: z.number(),
  height: z.number(),
  rate: z.string(),
  frames: z.number(),
  durationSeconds: z.number(),
  soundSeconds: z.number().nullable(),
  bytes: z.number(),
  /** Bits of a sample; as many as there were before this was kept. */
  bitDepth: z.number().default(8),
  /** Whether it has a track of captions. */
  hasCaptions: z.boolean().default(false),
  /** Files of captions beside it, by their names. */
  sidecars: z.array(z.string()).default([]),
  /** LUFS, where a loudness was asked for. */
  loudness: z.number().nullable().default(null),
  checks: z.array(ExportCheck).default([]),
});
export type FileFigures = z.infer<typeof FileFigures>;

/** A render as pages show it. */
export const ExportView = JobView.omit({ kind: true }).extend({
  filmId: z.string(),
  versionId: z.string(),
  fileName: z.string(),
  /** Where it lies, or is going to; null for the library's own folder. */
  folder: z.string().nullable(),
  format: z.enum(FORMAT_IDS),
  /** Whether it waits until somebody lets it go on. */
  isPaused: z.boolean(),
  /** Whether what was asked for cannot be read any more, so that it cannot be done again. */
  isUnreadable: z.boolean(),
  /** Frames a second that are being rendered; null while it is too early to say. */
  speed: z.number().nullable(),
  /** Milliseconds since 1970; null until it is done, and for what was done before this was kept. */
  finishedAt: z.number().nullable(),
  /** Null until it is done. */
  figures: FileFigures.nullable(),
  /** Whether what it shows has changed since; false until it is done. */
  isChanged: z.boolean(),
  /** Parts of the picture that were made anew, of so many. */
  made: z.number(),
  parts: z.number(),
});
export type ExportView = z.infer<typeof ExportView>;

/** What the check found wrong in a finished file, in words; empty where all is well. */
export const faultsIn = (figures: FileFigures | null): string[] =>
  (figures?.checks ?? []).filter(({ isGood }) => !isGood).map(({ text }) => text);

/** What is being done to a film, and how new what is known of it is. */
export const FilmStatus = z.object({
  /** Counts what the editor has changed. */
  revision: z.int(),
  /** Counts what the analysis and marks have found. */
  findings: z.int(),
  /** Jobs that are not done, without renders. */
  jobs: z.array(JobView),
  /** The newest first. */
  exports: z.array(ExportView),
});
export type FilmStatus = z.infer<typeof FilmStatus>;
