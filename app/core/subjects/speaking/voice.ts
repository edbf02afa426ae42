import { type FrameRange, framesPerSecond, type Rate } from "../../time/rate";

/** Whether somebody speaks in a film's sound, in even pieces. */
export interface VoiceActivity {
  /** Probability of speech in each piece, 0 to 255, from the first frame of the film on. */
  speech: ArrayLike<number>;
  secondsPerPiece: number;
}

/** Probability from which a piece counts as speech, of 255. */
const SPEECH = 128;
/** Pauses shorter than this belong to the speech around them. */
const PAUSE_SECONDS = 0.35;

/** For each frame of a range whether somebody speaks; short pauses are filled. */
export function voicedFrames(voice: VoiceActivity | null, range: FrameRange, rate: Rate): Uint8Array {
  const fps = framesPerSecond(rate);
  const voiced = new Uint8Array(range.end - range.start);
  if (!voice) return voiced;
  for (let i = 0; i < voiced.length; i++) {
    const piece = Math.floor((range.start + i + 0.5) / fps / voice.secondsPerPiece);
    voiced[i] = (voice.speech[piece] ?? 0) >= SPEECH ? 1 : 0;
  }
  const pause = Math.round(PAUSE_SECONDS * fps);
  let lastVoiced = -Infinity;
  for (let i = 0; i < voiced.length; i++) {
    if (!voiced[i]) continue;
    if (i - lastVoiced <= pause) voiced.fill(1, lastVoiced + 1, i);
    lastVoiced = i;
  }
  return voiced;
}
