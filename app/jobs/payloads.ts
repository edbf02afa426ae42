/** What the kinds of jobs are asked for; a proxy and an analysis need to know nothing but their film. */
import { z } from "zod";
import { FilmInfo } from "~/core/film-info";
import { Id } from "~/core/ids";
import { ShotMatch } from "~/core/shots/match-shots";

export const RenderPayload = z.object({ versionId: Id, fileName: z.string() });

/** A new export that is to take the place of a film's file, and the file's name. */
export const MatchPayload = z.object({ file: z.string(), name: z.string(), info: FilmInfo });
export type MatchPayload = z.infer<typeof MatchPayload>;

/** Where the shots of the film are in it. */
export const MatchResult = z.object({ matches: z.array(ShotMatch) });

/** A marked thing, by all that its track follows from. */
export const FollowPayload = z.object({ basis: z.string() });
