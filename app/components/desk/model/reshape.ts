import { useCallback, useMemo, useState } from "react";
import { asOne } from "~/core/edits/as-one";
import type { Command } from "~/core/edits/command";
import type { Size } from "~/core/geometry/box";
import { framesPerSecond, type Rate } from "~/core/time/rate";
import type { DeskVersion } from "./desk-types";
import type { Edits } from "../hooks/use-edits";
import { reshapeCommands, type Reshaping } from "./reshaping";

/** A way of the window that is being reshaped: shown as it would be until it is kept. */
export interface Reshape {
  reshaping: Reshaping | null;
  /** How many keys it comes to. */
  keys: number;
  /** Begins, or changes what can be set. */
  show: (reshaping: Reshaping | null) => void;
  keep: () => void;
  discard: () => void;
}

export function useReshape(edits: Edits, version: DeskVersion, picture: Size, rate: Rate): Reshape {
  const [shown, setShown] = useState<{ reshaping: Reshaping; command: Command; keys: number } | null>(null);
  const show = useCallback(
    (reshaping: Reshaping | null) => {
      if (!reshaping) return;
      const commands = reshapeCommands(reshaping, version, picture, framesPerSecond(rate));
      const command = asOne(commands);
      const keys = commands.reduce((sum, each) => sum + (each.type === "replace-keys" ? each.keys.length : 0), 0);
      setShown({ reshaping, command, keys });
      edits.preview(command);
    },
    [edits, version, picture, rate],
  );
  const discard = useCallback(() => {
    setShown(null);
    edits.preview(null);
  }, [edits]);
  const keep = useCallback(() => {
    if (shown) edits.send(shown.command);
    setShown(null);
  }, [edits, shown]);
  return useMemo(
    () => ({ reshaping: shown?.reshaping ?? null, keys: shown?.keys ?? 0, show, keep, discard }),
    [shown, show, keep, discard],
  );
}
