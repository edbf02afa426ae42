/** The sound of a version with more or less than the film's, as ffmpeg filters. */
import type { HeardIn, OwnSound } from "~/core/composition/heard";
import { framesPerSecond, frameToSeconds } from "~/core/time/rate";
import type { FilmFile } from "./film-file";
import { readFrom, soundOnGrid, soundStream } from "./on-grid.server";

const STEREO = "aformat=sample_fmts=fltp:channel_layouts=stereo";
/** Slowest tempo of one filter. */
const SLOWEST = 0.5;

/** Filters that change the speed of a sound at constant pitch. */
export function tempo(speed: number): string[] {
  if (speed === 1) return [];
  const halves = speed < SLOWEST ? Math.ceil(Math.log2(SLOWEST / speed)) : 0;
  return [...Array.from({ length: halves }, () => `atempo=${SLOWEST}`), `atempo=${speed / SLOWEST ** halves}`];
}

function ownSound(input: number, { info }: FilmFile, sound: OwnSound, seconds: number, sampleRate: number): string {
  const { from, speed, loops } = sound.playback;
  const first = Math.min(from, info.frames - 1);
  const length = frameToSeconds(info.frames - first, info.rate);
  const start = sound.played;
  return [
    `[${soundStream(input, info)}]${soundOnGrid(info, { start: first, end: info.frames }, sampleRate)}`,
    ...(loops ? [`aloop=loop=-1:size=${Math.round(length * sampleRate)}`] : []),
    ...tempo(speed),
    `atrim=start=${start.toFixed(6)}:end=${(start + seconds).toFixed(6)}`,
    "asetpts=PTS-STARTPTS",
    STEREO,
    "apad",
    `atrim=end=${seconds.toFixed(6)}`,
  ].join(",");
}

/**
 * Inputs and filters of the sound; the film's picture is input 0, and `[sound]` is the output.
 * @param film input 1
 * @param files of other sounds, by id; missing ones are silent
 */
export function mixedSound(
  film: FilmFile,
  heard: readonly HeardIn[],
  files: ReadonlyMap<string, FilmFile>,
  sampleRate: number,
): { input: string[]; filter: string } {
  const { info } = film;
  const input = readFrom(film, 0);
  let inputs = 2;
  const filmParts = heard.filter(({ film: isHeard }) => isHeard && info.audio);
  const whole = soundOnGrid(info, { start: 0, end: info.frames }, sampleRate);
  const split = filmParts.map((_, i) => `[all${i}]`).join("");
  const chains =
    filmParts.length > 0 ? [`[${soundStream(1, info)}]${whole},${STEREO},asplit=${filmParts.length}${split}`] : [];
  heard.forEach((part, i) => {
    const [from, to] = [part.range.start, part.range.end].map((frame) => frame / framesPerSecond(info.rate));
    const seconds = to! - from!;
    const ofFilm = filmParts.indexOf(part);
    chains.push(
      ofFilm >= 0
        ? `[all${ofFilm}]atrim=${from!.toFixed(6)}:${to!.toFixed(6)},asetpts=PTS-STARTPTS[film${i}]`
        : `anullsrc=r=${sampleRate}:cl=stereo,${STEREO},atrim=end=${seconds.toFixed(6)}[film${i}]`,
    );
    const labels = part.own.flatMap((sound) => {
      const file = files.get(sound.picture.id);
      if (!file?.info.audio) return [];
      const label = `[own${inputs}]`;
      input.push(...readFrom(file, 0));
      chains.push(`${ownSound(inputs, file, sound, seconds, sampleRate)}${label}`);
      inputs++;
      return [label];
    });
    const mix = `[film${i}]${labels.join("")}amix=inputs=${labels.length + 1}:normalize=0:duration=first`;
    chains.push(`${mix}[part${i}]`);
  });
  const parts = heard.map((_, i) => `[part${i}]`).join("");
  chains.push(`${parts}concat=n=${heard.length}:v=0:a=1[sound]`);
  return { input, filter: chains.join(";") };
}
