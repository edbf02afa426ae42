import { Command } from "commander";
import type { Terminal } from "./terminal";
import { libraryBackups, restoreLibrary } from "~/library/care/restore-library.server";

function list(terminal: Terminal): void {
  const backups = libraryBackups();
  if (backups.length === 0) terminal.tell("There are no backups yet.");
  for (const { name, bytes } of backups) terminal.print(`${name}  ${(bytes / 1e6).toFixed(1)} MB`);
}

async function restore(name: string | undefined, terminal: Terminal): Promise<void> {
  const { backup, kept } = await restoreLibrary(name);
  const before = kept ? ` The database that was there is kept as ${kept}.` : "";
  terminal.tell(
    `${backup.name} has been restored.${before} Start Glad Pan again; films that were added since then come back.`,
  );
}

export function restoreCommand(terminal: Terminal): Command {
  return new Command("restore")
    .description("restore the library from a backup; Glad Pan must not be running")
    .argument("[backup]", "the name of a backup; the newest if left out")
    .option("--list", "list the backups")
    .action((name: string | undefined, options: { list?: boolean }) =>
      options.list ? list(terminal) : restore(name, terminal),
    );
}
