/** Scenes in which people talk to each other, with a voice each from a speech synthesiser (espeak-ng). */
import { join } from "node:path";
import { seeded } from "../../demo/film/random";
import { say, SPOKEN_RATE as RATE, writeWave } from "../voices";
import { type Actor, PICTURE, type ScenePlan } from "./plan";

const VOICES = ["en+f3", "en+m3", "en+f2"];
const LINES = [
  "The wind came round to the west, so we moved the whole table down to the water.",
  "And did anybody think of bringing the long rope?",
  "I thought of it, but it was still wet from last week, so I left it at home.",
  "Then we shall have to tie the short ones together, as we did in the spring.",
  "That held for an hour at the most, if you remember, and then it was gone.",
  "An hour is all we need before the light goes.",
];
const SECONDS = 24;

export interface Talk {
  plan: ScenePlan;
  sound: string;
  /** Who speaks when, in seconds. */
  turns: { id: string; from: number; to: number }[];
}

/** Talks of two or three with pauses of uneven length; one is kept apart. */
export function planTalks(folder: string, people: (seed: number) => NonNullable<Actor["person"]>): Talk[] {
  return [2, 3, 2, 3, 2].map((count, variant) => {
    const random = seeded(9000 + variant);
    const samples = new Int16Array(SECONDS * RATE);
    const noise = 40 + 120 * random();
    for (let i = 0; i < samples.length; i++) samples[i] = (random() - 0.5) * noise;
    const turns: Talk["turns"] = [];
    let at = 0.8;
    for (let line = 0; at < SECONDS - 4; line++) {
      const speaker = line === 0 ? 0 : (turns.length + (random() < 0.8 ? 0 : 1)) % count;
      const voice = say(VOICES[speaker]!, LINES[(line + variant) % LINES.length]!, join(folder, "line.wav"));
      const from = Math.round(at * RATE);
      const length = Math.min(voice.length, samples.length - from);
      for (let i = 0; i < length; i++)
        samples[from + i] = Math.max(-32768, Math.min(32767, samples[from + i]! + 0.7 * voice[i]!));
      // The synthesiser ends its lines with silence.
      const to = at + length / RATE - 0.25;
      turns.push({ id: `talker-${speaker}`, from: at, to });
      at = to + 0.25 + random() * 0.9;
    }
    const sound = join(folder, `talk-${variant}.wav`);
    writeWave(sound, samples);
    const actors = Array.from({ length: count }, (_, i): Actor => {
      const x = ((i + 0.6) / (count + 0.2)) * PICTURE.width;
      const y = (0.36 + 0.05 * random()) * PICTURE.height;
      const size = count === 2 ? 170 + 60 * random() : 130 + 30 * random();
      return {
        id: `talker-${i}`,
        kind: "bust",
        person: people(100 * variant + i),
        size: [size, size],
        from: { x, y },
        to: { x, y },
        moving: [0, 1],
        yaw: [0.3 - 0.6 * (i / Math.max(1, count - 1)), 0.3 - 0.6 * (i / Math.max(1, count - 1))],
        speaks: turns.filter(({ id }) => id === `talker-${i}`).map(({ from, to }) => [from, to]),
      };
    });
    const plan: ScenePlan = {
      name: `talk ${variant}`,
      set: "talk",
      apart: variant === 4,
      seconds: SECONDS,
      world: "room",
      seed: 9000 + variant,
      actors,
      covers: [],
      camera: { panX: 0, shake: variant === 3 ? 4 : 1, zoom: 1 },
      grain: 3 + 2 * variant,
      crf: 24 + 2 * variant,
      exposure: 1,
      shutter: 0,
      blur: 0,
    };
    return { plan, sound, turns };
  });
}
