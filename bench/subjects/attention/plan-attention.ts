/** Scenes in which attention is shared or passes on, with who is due in the picture when, from their scripts. */
import { join } from "node:path";
import { seeded } from "../../../demo/film/random";
import { say, SPOKEN_RATE, writeWave } from "../../voices";
import { passes } from "../draw-scene";
import { WORLD_KINDS } from "../../cuts/worlds";
import { type Actor, PICTURE, type ScenePlan, someone, steady } from "../plan";

/** A range in which somebody, or several at once, are due in the picture. Seconds. */
export interface Due {
  ids: string[];
  from: number;
  to: number;
}

export interface AttentionScene {
  plan: ScenePlan;
  /** In order; of what lies between nothing is asked. */
  due: Due[];
  sound?: string;
}

type Random = () => number;
const { width: W, height: H } = PICTURE;

function figure(random: Random, index: number, x: number, size: number, more: Partial<Actor> = {}): Actor {
  const at = { x: x * W, y: 0.92 * H };
  return {
    id: `figure-${index}`,
    kind: "figure",
    person: someone(random, index),
    size: [size, size],
    from: at,
    to: at,
    moving: [0, 1],
    ...more,
  };
}

interface Script {
  actors: Actor[];
  due: Due[];
  seconds: number;
}

/** Scripts in which nobody speaks. */
const SILENT: Record<string, (random: Random) => Script> = {
  "act in turn": (r) => {
    const size = 430 + 80 * r();
    const [a, b] = [7 + 2 * r(), 14 + 2 * r()];
    const waves: [number, number][] = [
      [1, a - 1.5],
      [a, b - 1.5],
      [b, b + 5],
    ];
    const order = r() < 0.5 ? [0, 2, 1] : [2, 0, 1];
    return {
      actors: [0.16, 0.5, 0.84].map((x, i) => figure(r, i, x, size, { waves: [waves[order.indexOf(i)]!] })),
      due: [
        { ids: [`figure-${order[0]}`], from: 1, to: a },
        { ids: [`figure-${order[1]}`], from: a, to: b },
        { ids: [`figure-${order[2]}`], from: b, to: 21 },
      ],
      seconds: 21,
    };
  },
  "one leaves": (r) => {
    const gone = 8 + 2 * r();
    const leaving = { to: { x: -0.12 * W, y: 0.92 * H }, moving: [gone - 3.2, gone + 0.3] as [number, number] };
    const leaver = figure(r, 0, 0.3, 520, { ...leaving, waves: [[0.5, gone - 4]] });
    return {
      actors: [leaver, figure(r, 1, 0.78, 470)],
      due: [
        { ids: [leaver.id], from: 0.5, to: passes(leaver, 0) },
        { ids: ["figure-1"], from: passes(leaver, 0), to: 17 },
      ],
      seconds: 17,
    };
  },
  "one comes in": (r) => {
    const at = 7 + 2 * r();
    const coming = { from: { x: 1.1 * W, y: 0.92 * H }, to: { x: 0.76 * W, y: 0.92 * H } };
    const comer = figure(r, 1, 0.76, 500, { ...coming, moving: [at, at + 3], waves: [[at + 3, at + 9]] });
    return {
      actors: [figure(r, 0, 0.24, 460 + 40 * r()), comer],
      due: [
        { ids: ["figure-0"], from: 0, to: passes(comer, W) },
        { ids: [comer.id], from: passes(comer, W), to: at + 9 },
      ],
      seconds: 18,
    };
  },
  "thing, then person": (r) => {
    const at = 8 + r();
    const dog: Actor = {
      id: "dog",
      kind: "dog",
      size: [150, 150],
      from: { x: 0.12 * W, y: 0.75 * H },
      to: { x: 1.15 * W, y: 0.74 * H },
      moving: [0.3, at - 1],
    };
    const comer = figure(r, 1, 0.25, 520, {
      from: { x: -0.12 * W, y: 0.92 * H },
      to: { x: 0.3 * W, y: 0.92 * H },
      moving: [at, at + 4],
    });
    return {
      actors: [dog, comer],
      due: [
        { ids: [dog.id], from: 0.3, to: passes(dog, W) },
        { ids: [comer.id], from: passes(comer, 0), to: 17 },
      ],
      seconds: 17,
    };
  },
  "two who fit": (r) => {
    const x = 0.3 + 0.3 * r();
    const [a, b] = [figure(r, 0, x, 450), figure(r, 1, x + 0.17, 440 + 30 * r())];
    return { actors: [a, b], due: [{ ids: [a.id, b.id], from: 0, to: 12 }], seconds: 12 };
  },
};

const VOICES = ["en+f3", "en+m3", "en+f2", "en+m7"];
const LINES = [
  "The wind came round to the west, so we moved the whole table down to the water.",
  "And did anybody think of bringing the long rope this time?",
  "I thought of it, but it was still wet from last week, so I left it at home.",
  "Then we shall have to tie the short ones together, as we did in the spring.",
  "That held for an hour at the most, if you remember, and then it was gone.",
  "An hour is all we need before the light goes, and it is not far.",
];

interface TalkKind {
  people: number;
  /** Seconds from the end of a line to the next; below 0 they talk across each other. */
  pause: [number, number];
  /** Loudness of a chord below the voices, as a share of theirs. */
  music: number;
  /** Whether somebody says yes in the middle of the others' lines. */
  yes: boolean;
  /** Whether all laugh between some of the lines. */
  laughs: boolean;
  /** Whether the voices belong to nobody in the picture. */
  narrated: boolean;
}

const PLAIN: TalkKind = { people: 2, pause: [0.3, 1], music: 0, yes: false, laughs: false, narrated: false };
const TALKS: Record<string, TalkKind> = {
  "two talk": PLAIN,
  "three talk": { ...PLAIN, people: 3 },
  "four talk": { ...PLAIN, people: 4 },
  "cross-talk": { ...PLAIN, pause: [-0.7, -0.1] },
  yes: { ...PLAIN, yes: true },
  music: { ...PLAIN, people: 3, music: 0.3 },
  laughter: { ...PLAIN, laughs: true },
  narrator: { ...PLAIN, narrated: true },
};
const TALK_SECONDS = 32;

/** Adds samples at a time. */
function mixIn(sound: Int16Array, voice: Int16Array, at: number, gain: number): void {
  const from = Math.round(at * SPOKEN_RATE);
  for (let i = 0; i < Math.min(voice.length, sound.length - from); i++)
    sound[from + i] = Math.max(-32768, Math.min(32767, sound[from + i]! + gain * voice[i]!));
}

/** A breath of noise in bursts, five per second. */
const laugh = (random: Random, seconds: number): Int16Array =>
  Int16Array.from({ length: seconds * SPOKEN_RATE }, (_, i) => {
    const burst = Math.max(0, Math.sin((2 * Math.PI * 5 * i) / SPOKEN_RATE));
    return 9000 * burst * (random() - 0.5);
  });

function talkScript(random: Random, kind: TalkKind, file: string): Script & { sound: string } {
  const sound = Int16Array.from({ length: TALK_SECONDS * SPOKEN_RATE }, (_, i) => {
    const chord = [220, 277.2, 329.6].reduce(
      (sum, hertz) => sum + Math.sin((2 * Math.PI * hertz * i) / SPOKEN_RATE),
      0,
    );
    return 9000 * kind.music * (chord / 3) + 80 * (random() - 0.5);
  });
  const speaks: [number, number][][] = Array.from({ length: kind.people }, () => []);
  const due: Due[] = [];
  let speaker = Math.floor(random() * kind.people);
  let at = 0.8;
  for (let line = 0; at < TALK_SECONDS - 5; line++) {
    const voice = say(VOICES[speaker]!, LINES[Math.floor(random() * LINES.length)]!, `${file}.line.wav`);
    mixIn(sound, voice, at, 0.7);
    // The synthesiser ends its lines with silence.
    const end = at + voice.length / SPOKEN_RATE - 0.25;
    speaks[speaker]!.push([at, end]);
    due.push({ ids: [`talker-${speaker}`], from: at, to: end });
    if (kind.yes && line % 2 === 1) {
      const other = (speaker + 1) % kind.people;
      mixIn(sound, say(VOICES[other]!, "Yes.", `${file}.line.wav`), (at + end) / 2, 0.6);
      speaks[other]!.push([(at + end) / 2, (at + end) / 2 + 0.4]);
    }
    at = end + kind.pause[0] + random() * (kind.pause[1] - kind.pause[0]);
    if (kind.laughs && line % 2 === 0) {
      mixIn(sound, laugh(random, 1.4), at, 1);
      for (const own of speaks) own.push([at, at + 1.4]);
      at += 1.7;
    }
    speaker = (speaker + 1 + Math.floor(random() * (kind.people - 1))) % kind.people;
  }
  writeWave(file, sound);
  const tall = kind.people === 2 ? 190 : kind.people === 3 ? 140 : 115;
  const actors = Array.from({ length: kind.people }, (_, i): Actor => {
    const x = ((i + 0.6) / (kind.people + 0.2)) * W;
    const size = tall + 20 * random() + (kind.narrated && i === 0 ? 90 : 0);
    return {
      id: `talker-${i}`,
      kind: "bust",
      person: someone(random, i),
      size: [size, size],
      ...steady(x, (0.36 + 0.05 * random()) * H),
      speaks: kind.narrated ? [] : speaks[i]!,
    };
  });
  // After a line attention stays until the next.
  const held = due.map((one, i) => ({ ...one, to: due[i + 1]?.from ?? TALK_SECONDS }));
  const narrated = [{ ids: ["talker-0"], from: 0, to: TALK_SECONDS }];
  return { actors, due: kind.narrated ? narrated : held, seconds: TALK_SECONDS, sound: file };
}

const QUALITIES = [
  { grain: 3, crf: 23, shake: 0 },
  { grain: 6, crf: 27, shake: 1.5 },
  { grain: 4, crf: 31, shake: 4 },
];
const VARIANTS = 3;
/** The variant that is kept apart while the method is tuned. */
const APART = 1;

/** All scenes. Voices are put into a folder. */
export function* planAttention(
  folder: string,
): Generator<{ name: string; set: string; apart: boolean; make: () => AttentionScene }> {
  const sets = [...Object.keys(SILENT), ...Object.keys(TALKS)];
  for (const [s, set] of sets.entries()) {
    for (let variant = 0; variant < VARIANTS; variant++) {
      const name = `${set} ${variant}`;
      const apart = variant === APART;
      yield {
        name,
        set,
        apart,
        make: () => {
          const random = seeded(70_000 + 1000 * s + 31 * variant);
          const { shake, ...quality } = QUALITIES[variant % QUALITIES.length]!;
          const talk = TALKS[set];
          const script: Script & { sound?: string } = talk
            ? talkScript(random, talk, join(folder, `${name.replaceAll(" ", "-")}.wav`))
            : SILENT[set]!(random);
          const { actors, seconds, due, sound } = script;
          const world = WORLD_KINDS[Math.floor(random() * WORLD_KINDS.length)]!;
          const plan: ScenePlan = {
            name,
            set,
            apart,
            seconds,
            world,
            seed: 70_000 + 1000 * s + variant,
            actors,
            covers: [],
            camera: { panX: 0, shake, zoom: 1 },
            exposure: 1,
            shutter: 0,
            blur: 0,
            ...quality,
          };
          return { plan, due, ...(sound ? { sound } : {}) };
        },
      };
    }
  }
}
