import { toast } from "sonner";
import { commonTexts } from "~/texts/common";

const t = commonTexts.notAnswering;

const ID = "not-answering";

/** Shows a message for as long as the server does not answer. */
export function tellWhetherAnswering(answers: boolean): void {
  if (answers) toast.dismiss(ID);
  else {
    toast.error(t.gladPanDoesNotAnswer, {
      id: ID,
      duration: Infinity,
    });
  }
}
