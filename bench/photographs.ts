/** Real photographs for made-up films: from packages of Debian's, which are fetched and never kept. */
import { execFileSync } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, renameSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const COLLECTIONS = {
  nature: { package: "mate-backgrounds", folder: "usr/share/backgrounds/mate/nature" },
  phone: { package: "lomiri-wallpapers-16.04", folder: "usr/share/backgrounds" },
  /** Creatures and things without their ground; in the public domain or under the GPL. */
  cutOut: { package: "tuxpaint-stamps-default", folder: "usr/share/tuxpaint/stamps" },
};
type Collection = keyof typeof COLLECTIONS;

/** Folder of a collection, which is fetched the first time. */
export function collectionFolder(collection: Collection): string {
  const { package: name, folder } = COLLECTIONS[collection];
  const kept = join(tmpdir(), `glad-pan-photographs-${collection}`);
  if (!existsSync(kept)) {
    const fetched = mkdtempSync(join(tmpdir(), "glad-pan-fetched-"));
    execFileSync("apt-get", ["download", name], { cwd: fetched, stdio: "pipe" });
    const [archive] = readdirSync(fetched);
    execFileSync("dpkg-deb", ["-x", join(fetched, archive!), join(fetched, "files")]);
    renameSync(join(fetched, "files"), kept);
  }
  return join(kept, folder);
}

/** Files of a collection's photographs, in order of their names. */
export function photographs(collection: Collection = "nature"): string[] {
  const folder = collectionFolder(collection);
  return readdirSync(folder)
    .filter((file) => file.endsWith(".jpg"))
    .sort()
    .map((file) => join(folder, file));
}
