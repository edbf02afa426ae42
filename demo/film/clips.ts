/**
 * Makes the short clips that the tests use beside the demo film (`npm run demo:clips`): other shapes, other
 * rates, and two shots that are quickly analysed. Each with its ground truth, in demo/clips/.
 */
import { mkdirSync } from "node:fs";
import { produce, type Production } from "./produce";
import { type Mouth, shots } from "./shots";
import { HEIGHT, type Shot, WIDTH } from "./stage";

/** The named shots, each cut to a number of stage frames from a moment on. */
const excerpt = (mouth: Mouth, parts: { name: string; from: number; frames: number }[]): Shot[] => {
  const all = shots(mouth);
  return parts.map(({ name, from, frames }) => {
    const shot = all.find((other) => other.name === name)!;
    return {
      ...shot,
      frames,
      transition: "cut",
      overlap: 0,
      titles: [],
      draw: (g, frame) => shot.draw(g, frame + from),
    };
  });
};

const WHOLE = { x: 0, y: 0, width: WIDTH, height: HEIGHT };

const CLIPS: (Omit<Production, "file" | "truthFile" | "quality"> & { name: string })[] = [
  {
    // Two shots with sound.
    name: "two-shots",
    shots: (mouth) =>
      excerpt(mouth, [
        { name: "presenter", from: 0, frames: 45 },
        { name: "runner", from: 14, frames: 54 },
      ]),
    lines: [{ shot: "presenter", at: 4, person: "nela", text: "Good afternoon from Ferrow!" }],
    rate: 30,
    cutting: { crop: WHOLE, size: { width: 1280, height: 720 } },
    sound: true,
  },
  {
    // Held upright, without sound, 25 frames per second: the window moves up and down.
    name: "upright-25",
    shots: (mouth) => excerpt(mouth, [{ name: "presenter", from: 150, frames: 60 }]),
    lines: [],
    rate: 25,
    cutting: { crop: { x: 296, y: 0, width: 608, height: HEIGHT }, size: { width: 720, height: 1280 } },
    sound: false,
  },
  {
    name: "four-by-three",
    shots: (mouth) => excerpt(mouth, [{ name: "late-arrival", from: 50, frames: 75 }]),
    lines: [],
    rate: 30,
    cutting: { crop: { x: 0, y: 0, width: 1440, height: HEIGHT }, size: { width: 800, height: 600 } },
    sound: true,
  },
  {
    name: "runner-60",
    shots: (mouth) => excerpt(mouth, [{ name: "runner", from: 14, frames: 60 }]),
    lines: [],
    rate: 60,
    cutting: { crop: WHOLE, size: { width: 1280, height: 720 } },
    sound: true,
  },
];

mkdirSync("demo/clips", { recursive: true });
for (const { name, ...clip } of CLIPS) {
  const file = `demo/clips/${name}`;
  await produce({ ...clip, file: `${file}.mp4`, truthFile: `${file}.truth.json`, quality: ["-crf", "26"] });
}
