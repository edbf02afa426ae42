/** Films that were damaged on purpose: each is worked with or refused in a sentence, and nothing is left over. */
import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { extname, join } from "node:path";
import { findCuts } from "~/pipelines/find-cuts.server";
import { FilmError } from "~/media/film-tool.server";
import { probeFilm } from "~/media/probe.server";
import { makePoster } from "~/media/poster.server";
import { makeProxy } from "~/media/proxy.server";
import { listen } from "~/media/voice.server";
import { seeded } from "../../demo/film/random";
import type { Outcome } from "./outcome";

/** Nothing may take longer, on the smallest of films … */
const LONGEST_MS = 120_000;
/** … but for one that was damaged to be long: its frames are made, though they are all one picture. */
const LONGEST_MS_A_FRAME = 20;

/** The same two seconds in the containers and codecs that people bring. */
const KINDS: [name: string, args: string[]][] = [
  ["film.mp4", ["-c", "copy"]],
  ["fragmented.mp4", ["-c", "copy", "-movflags", "frag_keyframe+empty_moov"]],
  ["film.mkv", ["-c:v", "libx264", "-preset", "ultrafast", "-c:a", "libopus"]],
  ["film.ts", ["-c:v", "mpeg2video", "-c:a", "mp2"]],
  ["film.avi", ["-c:v", "mpeg4", "-c:a", "libmp3lame"]],
  ["film.webm", ["-c:v", "libvpx", "-deadline", "realtime", "-c:a", "libvorbis"]],
];

function damaged(film: Buffer, random: () => number): { how: string; bytes: Buffer } {
  const bytes = Buffer.from(film);
  const at = (share = 1) => Math.floor(random() * share * bytes.length);
  const how = ["flipped", "flipped at its head", "cut", "zeroed", "doubled", "out of order"][Math.floor(random() * 6)]!;
  switch (how) {
    case "flipped":
    case "flipped at its head":
      for (let i = 0; i < 1 + random() * 60; i++)
        bytes[at(how === "flipped" ? 1 : 0.02)]! ^= 1 << Math.floor(random() * 8);
      return { how, bytes };
    case "cut":
      return { how, bytes: bytes.subarray(0, at()) };
    case "zeroed": {
      const start = at();
      return { how, bytes: bytes.fill(0, start, Math.min(bytes.length, start + at(0.3))) };
    }
    case "doubled": {
      const start = at();
      return { how, bytes: Buffer.concat([bytes.subarray(0, start), bytes.subarray(at())]) };
    }
    default: {
      const [a, b] = [at(0.5), bytes.length - at(0.5) - 1];
      return { how, bytes: Buffer.concat([bytes.subarray(0, a), bytes.subarray(b), bytes.subarray(a, b)]) };
    }
  }
}

/** Everything that is done to a film when it is brought in; calls back with how many frames it has. */
async function bringIn(file: string, folder: string, onFrames: (frames: number) => void): Promise<void> {
  const film = { file, name: "kite.mp4", info: await probeFilm(file, "kite.mp4") };
  onFrames(film.info.frames);
  await makePoster(film, join(folder, "poster.jpg"));
  await makeProxy(film, join(folder, "proxy"));
  await findCuts(film);
  for await (const share of listen(film, 0)) if (share > 255) throw new Error("no share");
}

/** What is wrong with how a film was refused; null if nothing is. */
function faultOf(error: unknown, folder: string): string | null {
  if (!(error instanceof FilmError)) return `failed with ${error instanceof Error ? error.stack : String(error)}`;
  const { message } = error;
  if (!message.startsWith("kite.mp4: ") || !/[.]$/.test(message)) return `was refused with "${message}"`;
  if (message.includes(folder) || /0x[\da-f]{5}|Last message/.test(message)) return `was refused with "${message}"`;
  return null;
}

/** @param count how many damaged films */
export async function damagedFilms(
  count: number,
  seed = 1,
  onEach: (text: string) => void = () => {},
): Promise<Outcome> {
  const folder = mkdtempSync(join(tmpdir(), "glad-pan-worst-"));
  const random = seeded(seed);
  const failures: string[] = [];
  let taken = 0;
  try {
    const films = KINDS.map(([name, args]) => {
      const file = join(folder, name);
      const clip = ["-t", "2", "-i", "demo/clips/two-shots.mp4"];
      execFileSync("ffmpeg", ["-v", "error", "-nostdin", ...clip, ...args, file]);
      return { name, bytes: readFileSync(file) };
    });
    for (let i = 0; i < count; i++) {
      const { name, bytes } = films[i % films.length]!;
      const { how, bytes: broken } = damaged(bytes, random);
      const work = mkdtempSync(join(folder, "one-"));
      const file = join(work, `source${extname(name)}`);
      writeFileSync(file, broken);
      const begun = Date.now();
      let frames = 0;
      const fault = await bringIn(file, work, (count) => (frames = count)).then(
        () => void taken++,
        (error: unknown) => faultOf(error, folder),
      );
      const left = readdirSync(work).filter((found) => found.includes(".part"));
      const label = `${i}: ${name} ${how}`;
      if (fault) failures.push(`${label} ${fault}`);
      if (left.length > 0) failures.push(`${label} left ${left.join(", ")}`);
      const took = Date.now() - begun;
      if (took > LONGEST_MS + frames * LONGEST_MS_A_FRAME)
        failures.push(`${label} took ${took} ms for ${frames} frames`);
      onEach(`${label}: ${fault ?? "held"}`);
      rmSync(work, { recursive: true });
    }
  } finally {
    rmSync(folder, { recursive: true });
  }
  return { what: `damaged films (${taken} could be worked with)`, tried: count, failures };
}
