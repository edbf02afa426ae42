import { EditAnswer } from "~/core/edits/answer";

/** There is no server, or none that answers. */
export const NO_ANSWER: EditAnswer = { error: "no answer" };

/** Reads an answer, whatever it is: also one that is only a sentence, or no sense at all. */
export async function readAnswer(response: Response): Promise<EditAnswer> {
  const value: unknown = await response.json().catch(() => null);
  const answer = EditAnswer.safeParse(value);
  if (answer.success && (response.ok || answer.data.error)) return answer.data;
  if (response.status < 500 && typeof value === "string") return { error: value };
  return { error: `Glad Pan failed (${response.status}); see its log` };
}

/** What is wrong, in a sentence for people; null if nothing is. */
export function problemOf(answer: EditAnswer): string | null {
  if (answer === NO_ANSWER) return "Glad Pan did not answer; the change was not kept. Check that it is still running.";
  if (answer.stale) return "This film was changed in another window, so your change was not made.";
  return answer.error ? `That did not work: ${answer.error.replace(/\.$/, "")}.` : null;
}
