/**
 * Looks for bars of their own in films with and without, and tells for each shot how far off the area is that was found:
 * pixels of a bar that are left, which must be none, and of the picture that are lost, which are a few at each bar.
 *
 *   ./glad-pan bench bars [--only WORD] [--keep FOLDER]
 */
import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { type Box, wholeOf } from "~/core/geometry/box";
import { inRange } from "~/core/time/rate";
import { analyseAtOnce } from "~/pipelines/analyse-film.server";
import { probeFilm } from "~/media/probe.server";
import { drawBarFilm, FILMS, FPS, FRAME, SHOT_SECONDS } from "./films";

/** Pixels of the picture that may be lost at a bar: the guard, and a soft edge. */
const MAY_BE_LOST = 8;

const { values } = parseArgs({ options: { only: { type: "string" }, keep: { type: "string" } } });
const folder = values.keep ?? mkdtempSync(join(tmpdir(), "glad-pan-bars-"));
mkdirSync(folder, { recursive: true });

/** How far each side of an area lies inside another; negative where it lies outside. */
const insets = (inner: Box, outer: Box): number[] => [
  inner.x - outer.x,
  inner.y - outer.y,
  outer.x + outer.width - inner.x - inner.width,
  outer.y + outer.height - inner.y - inner.height,
];

/** What is neither bar nor soft edge; the bars of the films with soft edges are above and below. */
const clean = (area: Box | undefined, soft = 0): Box =>
  area ? { ...area, y: area.y + soft, height: area.height - 2 * soft } : wholeOf(FRAME);

const rows: Record<string, string | number>[] = [];
let failed = 0;
try {
  for (const film of FILMS) {
    if (values.only && !film.name.includes(values.only)) continue;
    const file = drawBarFilm(film, folder, film.name.replaceAll(/\W+/g, "-"));
    const { shots } = await analyseAtOnce({ file, name: film.name, info: await probeFilm(file) });
    const off = film.shots.map(({ area }, i) => {
      const middle = Math.floor((i + 0.5) * SHOT_SECONDS * FPS);
      const found = shots.find(({ range }) => inRange(middle, range))?.active ?? null;
      return insets(found ?? wholeOf(FRAME), clean(area, film.soft));
    });
    const left = Math.max(0, ...off.flat().map((inset) => -inset));
    const lost = Math.max(0, ...off.flat());
    const right = left === 0 && lost <= MAY_BE_LOST;
    if (!right) failed++;
    rows.push({ film: film.name, "bar left (px)": left, "picture lost (px)": lost });
    console.error(
      `${right ? "right" : "WRONG"}  ${film.name}: ${left} px of a bar left, ${lost} px of the picture lost`,
    );
    if (!right) console.error(off.map((sides) => sides.join(" ")).join(" | "));
  }
} finally {
  if (!values.keep) rmSync(folder, { recursive: true });
}
console.table(rows);
console.log(`${rows.length - failed} of ${rows.length} films right`);
process.exitCode = failed === 0 ? 0 : 1;
