import type { Command, SingleCommand } from "./command";

/** Several changes as one step to undo; a single one as itself. */
export const asOne = (commands: readonly SingleCommand[]): Command =>
  commands.length === 1 ? commands[0]! : { type: "batch", commands: [...commands] };
