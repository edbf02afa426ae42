/** Real photographs as ground for made-up films: from a package of Debian's, which is fetched and never kept. */
import { execFileSync } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, renameSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const PACKAGE = "mate-backgrounds";
const NATURE = "usr/share/backgrounds/mate/nature";

/** Files of the photographs, in order of their names; fetched the first time. */
export function photographs(): string[] {
  const kept = join(tmpdir(), "glad-pan-photographs");
  if (!existsSync(kept)) {
    const folder = mkdtempSync(join(tmpdir(), "glad-pan-fetched-"));
    execFileSync("apt-get", ["download", PACKAGE], { cwd: folder, stdio: "pipe" });
    const [archive] = readdirSync(folder);
    execFileSync("dpkg-deb", ["-x", join(folder, archive!), join(folder, "files")]);
    renameSync(join(folder, "files"), kept);
  }
  const nature = join(kept, NATURE);
  return readdirSync(nature)
    .sort()
    .map((name) => join(nature, name));
}
