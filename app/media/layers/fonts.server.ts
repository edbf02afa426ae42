/** Fonts of layers for the server's canvas: the same files as on the desk. */
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
 * Registers the families with canvases of this process; characters of other scripts use the system's fonts, of the same
 * names.
 * @param own the editor's own
 */
export function registerFonts(own: OwnData = new Map()): void {
  for (const [id, data] of own) {
    if (!GlobalFonts.has(ownFamily(id))) GlobalFonts.register(bytesOf(data), ownFamily(id));
  }
  if (isDone) return;
  isDone = true;
  // Renders text as browsers do.
  setTextRenderer("system");
  for (const family of FAMILIES) {
    const folder = projectPath(join("node_modules/@fontsource-variable", PACKAGES[family], "files"));
    // Each script is a file of its own; under one name they form one family.
    for (const file of readdirSync(folder).filter((name) => WANTED.test(name)))
      GlobalFonts.registerFromPath(join(folder, file), FAMILY_NAMES[family]);
  }
}
