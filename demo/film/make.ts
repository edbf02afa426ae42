/**
 * Makes the demo film "Ferrow Kite Day", its captions and its ground truth (`npm run demo:film`).
 *
 *   node --import tsx demo/film/make.ts [--still FRAME OUT.png]
 */
import { writeFileSync } from "node:fs";
import { writeVtt } from "~/core/captions/write-captions";
import { readTruth } from "../truth";
import { captionsOfFilm } from "./captions";
import { LINES } from "./lines";
import { produce, type Production, rehearse, Stage } from "./produce";
import { shots } from "./shots";
import { HEIGHT, RATE, WIDTH } from "./stage";

const FILM: Production = {
  shots,
  lines: LINES,
  file: "demo/ferrow-kite-day.mp4",
  truthFile: "demo/ferrow-kite-day.truth.json",
  rate: RATE,
  cutting: { crop: { x: 0, y: 0, width: WIDTH, height: HEIGHT }, size: { width: WIDTH, height: HEIGHT } },
  sound: true,
  quality: ["-b:v", "440k", "-maxrate", "1500k", "-bufsize", "3000k", "-g", "250"],
};

const still = process.argv.indexOf("--still");
if (still > 0) {
  const stage = new Stage(rehearse(FILM).placed);
  stage.draw(Number(process.argv[still + 1]));
  writeFileSync(process.argv[still + 2]!, stage.canvas.toBuffer("image/png"));
} else {
  await produce(FILM);
  const { speech, rate } = readTruth(FILM.truthFile);
  const grid = { num: rate[0], den: rate[1] };
  const spoken = speech.map((turn, i) => ({ ...turn, text: LINES[i]!.text }));
  writeFileSync("demo/ferrow-kite-day.vtt", writeVtt(captionsOfFilm(spoken, grid), grid));
}
