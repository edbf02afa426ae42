import { asOne } from "~/core/edits/as-one";
import type { Command } from "~/core/edits/command";
import { framesPerSecond } from "~/core/time/rate";
import type { DeskPort } from "./desk-model";
import { deskSelector } from "./desk-selector";
import { reshapeCommands, type Reshaping } from "./reshaping";

/** A path that is being reshaped, and the commands that keep it. */
export interface ReshapedPath {
  reshaping: Reshaping;
  command: Command;
  /** Number of keys of the new path. */
  keys: number;
}

/** Reshaping of a path, which is previewed until it is kept. */
export interface Reshape {
  reshaping: Reshaping | null;
  /** Number of keys of the new path. */
  keys: number;
  /** Begins, or changes the parameters. */
  show: (reshaping: Reshaping | null) => void;
  keep: () => void;
  discard: () => void;
}

export function reshape({ get, put }: DeskPort) {
  const commands = {
    show: (reshaping: Reshaping | null) => {
      if (!reshaping) return;
      const { edits, version, film } = get();
      const all = reshapeCommands(reshaping, version, film.picture, framesPerSecond(film.rate));
      const command = asOne(all);
      const keys = all.reduce((sum, each) => sum + (each.type === "replace-keys" ? each.keys.length : 0), 0);
      put({ reshaped: { reshaping, command, keys } });
      edits.preview(command);
    },
    keep: () => {
      const { edits, reshaped } = get();
      if (reshaped) edits.send(reshaped.command);
      put({ reshaped: null });
    },
    discard: () => {
      put({ reshaped: null });
      get().edits.preview(null);
    },
  };
  return deskSelector([(desk) => desk.reshaped], (shown): Reshape => ({
    ...commands,
    reshaping: shown?.reshaping ?? null,
    keys: shown?.keys ?? 0,
  }));
}
