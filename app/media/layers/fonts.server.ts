/** The fonts of layers, for the server's canvas: the same files that the desk has. */
import { readdirSync } from "node:fs";
import { join } from "node:path";
import { GlobalFonts, setTextRenderer } from "@napi-rs/canvas";
import { FAMILIES, FAMILY_NAMES, type Family } from "~/core/composition/layers/font-families";
import { ownFamily } from "~/core/composition/layers/own-font";
import { bytesOf, type OwnData } from "../own/own-file";
import { projectPath } from "~/disk/project-path.server";

const PACKAGES: Record<Family, string> = {
  plain: "inter",
  display: "bricolage-grotesque",
  serif: "source-serif-4",
  mono: "jetbrains-mono",
};
/** Upright, in all weights. */
const WANTED = /-wght-normal\.woff2$/;

let isDone = false;

/**
 * Makes the families known to canvases of this process; letters of other scripts are the system's, by the same names.
 *
 * @param own the editor's own
 */
export function registerFonts(own: OwnData = new Map()): void {
  for (const [id, data] of own) {
    if (!GlobalFonts.has(ownFamily(id))) GlobalFonts.register(bytesOf(data), ownFamily(id));
  }
  if (isDone) return;
  isDone = true;
  // As browsers draw letters.
  setTextRenderer("system");
  for (const family of FAMILIES) {
    const folder = projectPath(join("node_modules/@fontsource-variable", PACKAGES[family], "files"));
    // Each script is a file of its own; under one name they are one family.
    for (const file of readdirSync(folder).filter((name) => WANTED.test(name)))
      GlobalFonts.registerFromPath(join(folder, file), FAMILY_NAMES[family]);
  }
}
