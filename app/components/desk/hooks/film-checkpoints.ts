import { z } from "zod";
import { readAnswer } from "~/components/common/read-answer";
import { Checkpoint } from "~/core/edits/checkpoint";
import { Difference } from "~/core/edits/difference";
import { historyTexts } from "~/texts/history";

const t = historyTexts.filmCheckpoints;

const Answer = z.object({ checkpoints: z.array(Checkpoint) });
const urlOf = (filmId: string): string => `/films/${filmId}/checkpoints`;

/** A film's checkpoints, the newest first. */
export const loadCheckpoints = async (filmId: string): Promise<Checkpoint[]> =>
  (await readAnswer(urlOf(filmId), Answer)).checkpoints;

/** The film's state at a checkpoint. */
export const loadCheckpoint = (filmId: string, id: string): Promise<Difference> =>
  readAnswer(`${urlOf(filmId)}?id=${encodeURIComponent(id)}`, Difference);

export type CheckpointChange = { do: "add"; id: string; name: string } | { do: "delete" | "put-back"; id: string };

/** Changes the film's checkpoints; shows why if that fails. */
export async function changeCheckpoints(filmId: string, change: CheckpointChange): Promise<string | null> {
  const request = { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(change) };
  const response = await fetch(urlOf(filmId), request).catch(() => null);
  if (!response) return t.notResponding;
  return response.ok ? null : await response.text();
}
