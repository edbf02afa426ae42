import type { Command } from "~/core/edits/command";
import type { HandKey } from "~/core/path/solve-version";

/** Hand keys with the pending commands on one version already carried out. */
export function withPendingKeys(keys: HandKey[], pending: readonly Command[], versionId: string): HandKey[] {
  const byFrame = new Map(keys.map((key) => [key.frame, key]));
  for (const command of pending) {
    if (!("versionId" in command) || command.versionId !== versionId) continue;
    if (command.type === "set-key") byFrame.set(command.key.frame, command.key);
    if (command.type === "remove-key") byFrame.delete(command.frame);
    if (command.type === "move-key") {
      byFrame.delete(command.fromFrame);
      byFrame.set(command.key.frame, command.key);
    }
  }
  return [...byFrame.values()].sort((a, b) => a.frame - b.frame);
}
