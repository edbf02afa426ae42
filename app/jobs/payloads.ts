/** What the kinds of jobs are asked for; a proxy and an analysis need to know nothing but their film. */
import { z } from "zod";
import { FilmInfo } from "~/core/film-info";
import { FileFigures } from "~/core/film-status";
import { OutputSettings, USUAL_OUTPUT } from "~/core/formats/output-settings";
import { Id } from "~/core/ids";
import { ShotMatch } from "~/core/shots/match-shots";
import type { JobRow } from "~/db/jobs.server";
import { readableOrNull } from "~/db/readable";
import { WrittenFile } from "./written-files.server";

export const RenderPayload = z.object({
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
export type RenderPayload = z.infer<typeof RenderPayload>;

/** Of a render, beside the check of what came of it. */
export const RENDERING_SHARE = 0.92;

/** What came of a render. */
export const RenderResult = FileFigures.extend({
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

/**
 * What a render was asked for, what came of it so far, and the name that its file has got or is to get; null where what is
 * stored of it cannot be read.
 */
export const readRender = (job: Pick<JobRow, "payload" | "result">) =>
  readableOrNull(() => {
    const payload = RenderPayload.parse(JSON.parse(job.payload));
    const result = job.result === null ? null : RenderResult.parse(JSON.parse(job.result));
    return { payload, result, fileName: result?.fileName ?? payload.fileName };
  });

/** A new export that is to take the place of a film's file, and the file's name. */
export const MatchPayload = z.object({ file: z.string(), name: z.string(), info: FilmInfo });
export type MatchPayload = z.infer<typeof MatchPayload>;

/** Where the shots of the film are in it. */
export const MatchResult = z.object({ matches: z.array(ShotMatch) });

/** A marked thing, by all that its track follows from. */
export const FollowPayload = z.object({ basis: z.string() });
