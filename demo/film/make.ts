/**
 * Makes the demo film "Ferrow Kite Day" and its ground truth (`npm run demo:film`).
 *
 *   node --import tsx demo/film/make.ts [--still FRAME OUT.png]
 */
import { writeFileSync } from "node:fs";
import { produce, type Production, rehearse, Stage } from "./produce";
import { shots } from "./shots";
import { HEIGHT, RATE, WIDTH } from "./stage";

const FILM: Production = {
  shots,
  lines: [
    {
      shot: "presenter",
      at: 14,
      person: "nela",
      text: "Good afternoon from Ferrow! The wind came up at noon, and half the town is out on the salt meadows with a kite.",
    },
    { shot: "makers", at: 8, person: "bram", text: "My grandfather cut these spars from willow." },
    { shot: "makers", at: 104, person: "ilse", text: "And I sew the sails, each one by hand." },
    { shot: "makers", at: 196, person: "bram", text: "She does it better than I ever could." },
    { shot: "close-up", at: 8, person: "ilse", text: "A good kite wants to leave you. That is the art." },
    { shot: "farewell", at: 62, person: "nela", text: "That was our kite day. See you next year." },
  ],
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
}
