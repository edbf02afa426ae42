import { EditAnswer } from "~/core/edits/answer";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.editAnswer;

/** There is no server, or it does not answer. */
export const NO_ANSWER: EditAnswer = { error: t.noAnswer };

/** Reads an answer of any form, even a bare sentence or nonsense. */
export async function readAnswer(response: Response): Promise<EditAnswer> {
  const value: unknown = await response.json().catch(() => null);
  const answer = EditAnswer.safeParse(value);
  if (answer.success && (response.ok || answer.data.error)) return answer.data;
  if (response.status < 500 && typeof value === "string") return { error: value };
  return { error: t.serverFailed(response.status) };
}

/** The problem in an answer, as a sentence for people; null if there is none. */
export function problemOf(answer: EditAnswer): string | null {
  if (answer === NO_ANSWER) return t.notResponding;
  if (answer.stale) return t.changedElsewhere;
  return answer.error ? t.thatDidNotWork(answer.error.replace(/\.$/, "")) : null;
}
