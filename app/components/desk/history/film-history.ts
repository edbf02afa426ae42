import { z } from "zod";
import { EditRow } from "~/core/edits/answer";
import { Difference } from "~/core/edits/difference";
import { NamedState } from "~/core/edits/named-state";
import { historyTexts } from "~/texts/history";

const t = historyTexts.filmHistory;

const FilmHistory = z.object({ edits: z.array(EditRow), states: z.array(NamedState) });
export type FilmHistory = z.infer<typeof FilmHistory>;

async function asked<T>(filmId: string, query: string, schema: z.ZodType<T>): Promise<T> {
  const response = await fetch(`/films/${filmId}/history${query}`, { cache: "no-store" });
  if (!response.ok) throw new Error(await response.text());
  return schema.parse(await response.json());
}

/** A film's edits and named states, the newest first. */
export const loadHistory = (filmId: string): Promise<FilmHistory> => asked(filmId, "", FilmHistory);

/** Its named states alone. */
export const loadNamedStates = async (filmId: string): Promise<NamedState[]> =>
  (await asked(filmId, "?only=states", FilmHistory)).states;

/** All that was set in the film when a state got its name. */
export const loadNamedState = (filmId: string, stateId: string): Promise<Difference> =>
  asked(filmId, `?state=${encodeURIComponent(stateId)}`, Difference);

export type StateChange = { do: "name"; id: string; name: string } | { do: "delete" | "put-back"; id: string };

/** Changes the film's named states; says why not where it cannot. */
export async function changeStates(filmId: string, change: StateChange): Promise<string | null> {
  const request = { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(change) };
  const response = await fetch(`/films/${filmId}/history`, request).catch(() => null);
  if (!response) return t.gladPanDidNotAnswer;
  return response.ok ? null : await response.text();
}
