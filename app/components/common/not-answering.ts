import { toast } from "sonner";
import { commonTexts } from "~/texts/common";

const t = commonTexts.notAnswering;

const ID = "not-answering";

/** Says that the server does not answer for as long as it does not. */
export function tellWhetherAnswering(answers: boolean): void {
  if (answers) toast.dismiss(ID);
  else {
    toast.error(t.gladPanDoesNotAnswer, {
      id: ID,
      duration: Infinity,
    });
  }
}
