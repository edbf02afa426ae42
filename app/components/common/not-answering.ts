import { toast } from "sonner";

const ID = "not-answering";

/** Says that the server does not answer for as long as it does not. */
export function tellWhetherAnswering(answers: boolean): void {
  if (answers) toast.dismiss(ID);
  else {
    toast.error("Glad Pan does not answer. Check that it is still running; this page goes on when it is.", {
      id: ID,
      duration: Infinity,
    });
  }
}
