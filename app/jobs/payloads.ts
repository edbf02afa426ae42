/** What the kinds of jobs are asked for; a proxy and an analysis need to know nothing but their film. */
import { z } from "zod";
import { Id } from "~/core/ids";

export const RenderPayload = z.object({ versionId: Id, fileName: z.string() });

/** A marked thing, by all that its track follows from. */
export const FollowPayload = z.object({ basis: z.string() });
