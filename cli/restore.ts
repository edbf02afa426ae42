import { Command } from "commander";
import { libraryBackups, restoreLibrary } from "~/jobs/restore-library.server";

function list(): void {
  const backups = libraryBackups();
  if (backups.length === 0) console.error("There are no backups yet.");
  for (const { name, bytes } of backups) console.log(`${name}  ${(bytes / 1e6).toFixed(1)} MB`);
}

async function restore(name: string | undefined): Promise<void> {
  const { backup, kept } = await restoreLibrary(name);
  const before = kept ? ` The database that was there is kept as ${kept}.` : "";
  console.error(
    `${backup.name} has been restored.${before} Start Glad Pan again; films that were added since then come back.`,
  );
}

export function restoreCommand(): Command {
  return new Command("restore")
    .description("restore the library from a backup; Glad Pan must not be running")
    .argument("[backup]", "the name of a backup; the newest if left out")
    .option("--list", "list the backups")
    .exitOverride()
    .action((name: string | undefined, options: { list?: boolean }) => (options.list ? list() : restore(name)));
}
