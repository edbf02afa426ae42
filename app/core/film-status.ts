import { z } from "zod";

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

/** What a rendered file was measured to be. */
export const FileFigures = z.object({
  width: z.number(),
  height: z.number(),
  rate: z.string(),
  frames: z.number(),
  durationSeconds: z.number(),
  soundSeconds: z.number().nullable(),
  bytes: z.number(),
  /** Whether it has a track of captions. */
  hasCaptions: z.boolean().default(false),
  /** Files of captions beside it, by their names. */
  sidecars: z.array(z.string()).default([]),
});
export type FileFigures = z.infer<typeof FileFigures>;

/** A render as the desk shows it. */
export const ExportView = JobView.omit({ kind: true }).extend({
  versionId: z.string(),
  fileName: z.string(),
  /** Null until it is done. */
  figures: FileFigures.nullable(),
});
export type ExportView = z.infer<typeof ExportView>;

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
