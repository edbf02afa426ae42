/**
 * Who speaks when: while there is a voice, the face whose mouth moves most relative to its movement in silence. One speaker
 * at a time, with a price on every change, found over the whole shot at once (Viterbi 1967).
 */
import { type FrameRange, framesPerSecond, type Rate } from "../../time/rate";
import type { Track } from "../tracking/track";
import { voiced as voicedFrames } from "./voice";

/** Seconds over which the movement of a mouth is averaged: some syllables. */
const SYLLABLES_SECONDS = 0.5;
/** Movement above a mouth's silence, in thousandths, at which speech is more likely than not. */
const SPEECH_MOVEMENT = 45;
/** Cost of a change of speaker, in seconds of clear evidence. */
const CHANGE_SECONDS = 0.8;
/** Shortest turn. */
export const LEAST_TURN_SECONDS = 1.2;

/** Lowest quantile of values that counts as a mouth at rest, where there is no silence. */
const REST_SHARE = 0.2;
/** Largest movement of a mouth at rest, in thousandths: one that always moves always speaks. */
const MOST_REST = 40;

/** Smoothed movement of a mouth above its movement in silence, in thousandths; 0 where the face is not seen. */
function evidence(face: Track, shot: FrameRange, voiced: Uint8Array, fps: number): Float32Array {
  const count = shot.end - shot.start;
  const raw = new Float32Array(count).fill(Number.NaN);
  face.mouth?.forEach((value, i) => {
    const at = face.start + i - shot.start;
    if (value !== null && at >= 0 && at < count) raw[at] = value;
  });
  const reach = Math.max(1, Math.round((SYLLABLES_SECONDS * fps) / 2));
  const even = new Float32Array(count).fill(Number.NaN);
  let sum = 0;
  let seen = 0;
  for (let i = -reach; i < count; i++) {
    const entering = raw[i + reach];
    if (entering !== undefined && !Number.isNaN(entering)) [sum, seen] = [sum + entering, seen + 1];
    const leaving = raw[i - reach - 1];
    if (leaving !== undefined && !Number.isNaN(leaving)) [sum, seen] = [sum - leaving, seen - 1];
    if (i >= 0 && seen > 0) even[i] = sum / seen;
  }
  const silent: number[] = [];
  const all: number[] = [];
  even.forEach((value, i) => {
    if (Number.isNaN(value)) return;
    all.push(value);
    if (!voiced[i]) silent.push(value);
  });
  all.sort((a, b) => a - b);
  silent.sort((a, b) => a - b);
  const lowest = all[Math.floor(REST_SHARE * all.length)] ?? 0;
  const rest = silent.length > fps / 2 ? silent[silent.length >> 1]! : Math.min(MOST_REST, lowest);
  return even.map((value) => (Number.isNaN(value) ? 0 : value - rest));
}

/** The best sequence of states: each frame's gain in its state, less the price of every change. */
function bestStates(gains: Float32Array[], price: number): Uint8Array {
  const count = gains[0]!.length;
  const from = gains.map(() => new Uint8Array(count));
  let scores = gains.map((gain) => gain[0]!);
  for (let i = 1; i < count; i++) {
    const best = scores.indexOf(Math.max(...scores));
    scores = scores.map((score, state) => {
      const changes = scores[best]! - price > score;
      from[state]![i] = changes ? best : state;
      return (changes ? scores[best]! - price : score) + gains[state]![i]!;
    });
  }
  const states = new Uint8Array(count);
  let state = scores.indexOf(Math.max(...scores));
  for (let i = count - 1; i >= 0; i--) {
    states[i] = state;
    state = from[state]![i]!;
  }
  return states;
}

/** Seconds within which the voice, which is exact to the word, corrects the start of a turn found from mouths. */
const WORD_SECONDS = 0.4;

/** A turn from its first word to its last: null without a word. Frames of the shot. */
function atWords({ start, end }: FrameRange, said: Uint8Array, fps: number): FrameRange | null {
  const isOnset = (frame: number) => said[frame] === 1 && said[frame - 1] !== 1;
  let from = start;
  while (from < end && !said[from]) from++;
  if (from === end) return null;
  const reach = Math.round(WORD_SECONDS * fps);
  if (from === start) {
    for (let away = 0; away <= reach; away++) {
      const onset = [start - away, start + away].find((frame) => frame >= 0 && frame < end && isOnset(frame));
      if (onset === undefined) continue;
      from = onset;
      break;
    }
  }
  let to = end;
  while (to > from && !said[to - 1]) to--;
  return { start: from, end: to };
}

/**
 * When each face of a shot speaks, by the track's id. Faces without a turn are left out.
 * @param speech probability of speech in each frame of the shot, 0 to 255
 */
export function speakingTurns(
  faces: readonly Track[],
  shot: FrameRange,
  speech: Uint8Array,
  rate: Rate,
): Map<string, FrameRange[]> {
  const voiced = voicedFrames(speech, rate);
  const said = voicedFrames(speech, rate, 0);
  const fps = framesPerSecond(rate);
  const turns = new Map<string, FrameRange[]>();
  if (faces.length === 0 || !voiced.includes(1)) return turns;
  // The first state is that nobody visible speaks: a voice from elsewhere, or none.
  const gains = [
    new Float32Array(voiced.length).fill(1),
    ...faces.map((face) =>
      evidence(face, shot, voiced, fps).map((moved, i) => (voiced[i] ? Math.min(3, moved / SPEECH_MOVEMENT) : 0.999)),
    ),
  ];
  const states = bestStates(gains, CHANGE_SECONDS * fps);
  for (let start = 0; start < states.length;) {
    let end = start + 1;
    while (end < states.length && states[end] === states[start]) end++;
    const face = faces[states[start]! - 1];
    const turn = face && atWords({ start, end }, said, fps);
    if (turn) {
      const inFilm = { start: shot.start + turn.start, end: shot.start + turn.end };
      turns.set(face.id, [...(turns.get(face.id) ?? []), inFilm]);
    }
    start = end;
  }
  return turns;
}
