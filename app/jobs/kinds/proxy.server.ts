import { existsSync } from "node:fs";
import { DATA_FOLDER, dataFolder, posterFile, proxyFolder } from "~/db/workplace.server";
import { requireSpace } from "~/disk/disk-space.server";
import { estimatedBytes } from "~/media/estimated-size";
import { makePoster } from "~/media/poster.server";
import { makeProxy, proxyPicture } from "~/media/proxy.server";
import type { JobGround, JobOptions } from "../job-options";

/** Makes a film's poster and its proxy. */
export async function makeLightCopy({ film, row }: JobGround, { onProgress, signal }: JobOptions): Promise<void> {
  const { frames, rate } = film.info;
  const bytes = estimatedBytes("proxy", proxyPicture(film.info), frames, rate);
  requireSpace(dataFolder(), DATA_FOLDER, bytes, `the proxy of ${film.name}`);
  if (!existsSync(posterFile(row.id))) {
    onProgress("Making the poster", 0);
    await makePoster(film, posterFile(row.id), signal);
  }
  const onShare = (share: number) => onProgress("Making a proxy", share);
  await makeProxy(film, proxyFolder(row.id), { signal, onProgress: onShare });
}
