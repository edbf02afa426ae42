import { z } from "zod";
import { readAnswer } from "~/components/common/read-answer";
import { EditRow } from "~/core/edits/answer";

const Answer = z.object({ edits: z.array(EditRow) });

/** A film's edits, the newest first. */
export const loadHistory = async (filmId: string): Promise<EditRow[]> =>
  (await readAnswer(`/films/${filmId}/history`, Answer)).edits;
