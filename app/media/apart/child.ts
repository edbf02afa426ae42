/** Entry of a process that reads one foreign file and ends. */
import { type Answered, type Asked, TASKS } from "./tasks";

const read = TASKS as Record<Asked["task"], (...args: unknown[]) => unknown>;

process.once("message", ({ task, args }: Asked) => {
  const answer = (answered: Answered) => process.send!(answered, () => process.exit());
  Promise.resolve()
    .then(() => read[task](...args))
    .then(
      (found) => answer({ found }),
      (error: unknown) => {
        const { name, message } = error instanceof Error ? error : new Error(String(error));
        answer({ refused: { name, message } });
      },
    );
});
