import { asSentence } from "~/core/basics/sentence";
import { isDiskFull } from "~/disk/disk-space.server";
import { DATA_FOLDER, dataFolder, diskIsFull } from "~/db/workplace.server";

/** Why a job has failed, in a sentence for people that names no path of this machine. */
export function failureMessage(error: unknown): string {
  const said = error instanceof Error ? error.message : String(error);
  if (isDiskFull(error, dataFolder())) {
    const known = said.startsWith("not enough space");
    return asSentence(known ? said : `${diskIsFull()}. Free some space and start this again`);
  }
  return said.replaceAll(dataFolder(), DATA_FOLDER);
}
