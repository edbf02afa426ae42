/** Made-up talks of which it is known when each caption begins. */
import { join } from "node:path";
import { cutIntoCaptions, type Said } from "~/core/captions/break-text";
import { seeded } from "../../demo/film/random";
import { say, SPOKEN_RATE, writeWave } from "../voices";

const TALK = `The harbour master of Ferrow keeps three clocks, and none of them agree. She says the tide agrees with the oldest.
Every morning at six she walks the wall, counts the boats, and writes the number on a slate. Fourteen today. It was sixteen before the storm!
Do you know what she does with the slates? She keeps them all, in a shed behind the chapel, because a number that is rubbed out never happened.
My brother went to look at them once. He found the year that we were born, and the day, and there it was: twenty-two boats, wind from the south, fog until ten.
Nobody believes it. I believe it.
When the ferry stopped, people said that the village would be empty in a year, but they had forgotten the school. Forty children came across the ice that winter, with their lamps and their bread, and the teacher rang the bell for every one of them.
So we built the bridge. It took us four summers. The first one who walked over it was a goat.`;

export interface TalkKind {
  name: string;
  /** Seconds between sentences, least and most; and within one that is cut into several captions. */
  pauses: [number, number];
  inner: number;
  /** Loudness of a chord below the voice, as a share of the voice's. */
  music: number;
}

export const KINDS: readonly TalkKind[] = [
  { name: "clear pauses", pauses: [0.5, 1.4], inner: 0.05, music: 0 },
  { name: "short pauses", pauses: [0.2, 0.4], inner: 0.05, music: 0 },
  { name: "hardly a pause", pauses: [0.03, 0.1], inner: 0.03, music: 0 },
  { name: "clear pauses, music", pauses: [0.5, 1.4], inner: 0.05, music: 0.25 },
];

const VOICES = [
  { voice: "en+f3", speed: 150 },
  { voice: "en+m3", speed: 175 },
  { voice: "en+m1", speed: 125 },
];

export interface Talk {
  name: string;
  sound: string;
  said: Said[];
  /** Seconds at which each caption begins, in order. */
  starts: number[];
}

/** Samples without the silence around them. */
function trimmed(samples: Int16Array): Int16Array {
  const isHeard = (value: number) => Math.abs(value) > 300;
  return samples.subarray(samples.findIndex(isHeard), samples.findLastIndex(isHeard) + 1);
}

/** A talk for each kind and voice. */
export function makeTalks(folder: string): (Talk & { kind: string })[] {
  const captions = cutIntoCaptions(TALK, 30, 2);
  return KINDS.flatMap((kind, k) =>
    VOICES.map(({ voice, speed }, v) => {
      const random = seeded(100 * k + v);
      const pieces: { at: number; samples: Int16Array }[] = [];
      let at = 1 + random();
      for (const { text } of captions) {
        const samples = trimmed(say(voice, text, join(folder, "line.wav"), speed));
        pieces.push({ at, samples });
        const [least, most] = kind.pauses;
        const pause = /[.!?]$/.test(text) ? least + (most - least) * random() : kind.inner;
        at += samples.length / SPOKEN_RATE + pause;
      }
      const sound = new Float32Array(Math.ceil((at + 1.5) * SPOKEN_RATE));
      for (const piece of pieces) {
        const first = Math.round(piece.at * SPOKEN_RATE);
        piece.samples.forEach((value, i) => (sound[first + i]! += value));
      }
      const chord = [220, 277.2, 329.6];
      for (let i = 0; i < sound.length; i++) {
        const tone = chord.reduce((sum, hertz) => sum + Math.sin((2 * Math.PI * hertz * i) / SPOKEN_RATE), 0) / 3;
        sound[i] = 0.7 * sound[i]! + 9000 * kind.music * tone + 60 * (random() - 0.5);
      }
      const file = join(folder, `talk-${k}-${v}.wav`);
      writeWave(
        file,
        Int16Array.from(sound, (value) => Math.max(-32768, Math.min(32767, Math.round(value)))),
      );
      return {
        kind: kind.name,
        name: `${voice} at ${speed}`,
        sound: file,
        said: captions,
        starts: pieces.map((piece) => piece.at),
      };
    }),
  );
}
