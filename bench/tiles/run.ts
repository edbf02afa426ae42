/**
 * Looks for tiles and insets in films made of photographs, and for windows that lie across a seam
 * (`./glad-pan bench tiles [--json OUT.json]`).
 */
import { writeFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { type Box, boxContains, boxIou } from "~/core/geometry/box";
import { aspectRatio, windowBox } from "~/core/geometry/crop-window";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import { frameShots } from "~/core/path/version-paths";
import { analyseAtOnce } from "~/pipelines/analyse-film.server";
import { probeFilm } from "~/media/probe.server";
import { makeFilm, planFilms } from "./films";

/** A tile is found if a box overlaps it by this much. */
const FOUND = 0.96;
/** Pixels that a window may be over a seam. */
const TOLERANCE = 3;
const TARGETS = [
  { width: 1080, height: 1920 },
  { width: 1080, height: 1080 },
];

const { values } = parseArgs({ options: { json: { type: "string" } } });

interface Found {
  there: number;
  right: number;
  wrong: number;
}
const rows: { film: string; shots: number; tiles: Found; insets: Found; across: number; frames: number }[] = [];
for (const [index, film] of planFilms().entries()) {
  const file = makeFilm(film, index);
  const info = await probeFilm(file);
  const { shots } = await analyseAtOnce({ file, name: film.name, info });
  const boxesOf = (kind: "tile" | "inset"): Box[] =>
    shots.flatMap(({ tracks }) => tracks.filter((track) => track.kind === kind).map(({ boxes }) => boxes[0]!));
  const truth = { tile: film.tiles.length > 1 ? film.tiles : [], inset: film.insets };
  const count = (kind: "tile" | "inset"): Found => {
    const found = boxesOf(kind);
    const right = truth[kind].filter((box) => found.some((other) => boxIou(box, other) >= FOUND)).length;
    return { there: truth[kind].length, right, wrong: found.length - right };
  };
  let across = 0;
  let frames = 0;
  for (const target of TARGETS) {
    const framings = shots.map(({ range, tracks, active }) => ({
      range,
      kept: [range],
      settings: USUAL_FRAMING,
      tracks,
      rule: { kind: "auto" as const },
      handKeys: [],
      others: [],
      protect: null,
      active,
      carry: false,
      atSwitch: false,
    }));
    for (const { windows } of frameShots(framings, info.picture, target, info.rate)) {
      for (const window of windows) {
        frames++;
        const box = windowBox(window, aspectRatio(target));
        if (truth.tile.length > 0 && !truth.tile.some((tile) => boxContains(tile, box, TOLERANCE))) across++;
      }
    }
  }
  rows.push({ film: film.name, shots: shots.length, tiles: count("tile"), insets: count("inset"), across, frames });
}

const shown = ({ there, right, wrong }: Found) => `${right} of ${there}${wrong > 0 ? `, ${wrong} wrong` : ""}`;
console.table(
  rows.map(({ tiles, insets, across, frames, ...row }) => ({
    ...row,
    tiles: shown(tiles),
    insets: shown(insets),
    "windows across a seam": `${across} of ${frames}`,
  })),
);
const sum = (of: (row: (typeof rows)[number]) => number) => rows.reduce((total, row) => total + of(row), 0);
for (const kind of ["tiles", "insets"] as const) {
  const [there, right, wrong] = (["there", "right", "wrong"] as const).map((of) => sum((row) => row[kind][of]));
  console.log(`${kind}: ${right} of ${there} found, ${wrong} wrong`);
}
console.log(`windows across a seam: ${sum(({ across }) => across)} of ${sum(({ frames }) => frames)}`);
if (values.json) writeFileSync(values.json, `${JSON.stringify(rows, null, 2)}\n`);
