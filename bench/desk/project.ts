/** A made-up project: a long film that is cut, analysed and full of keys, put into a scratch data folder. */
import { execFileSync } from "node:child_process";
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { newVersion } from "~/core/version/film-state";
import { scaleBox } from "~/core/geometry/box";
import type { Track } from "~/core/subjects/tracking/track";
import { shotId } from "~/core/shots/reshape";
import { freshShot } from "~/core/shots/shot";
import { hardTransition } from "~/core/shots/transition";
import { saveTracks, saveTransitions } from "~/db/analysis.server";
import { inTransaction, openDatabase } from "~/db/database.server";
import { insertFilm } from "~/db/films.server";
import { savePeople } from "~/db/people.server";
import { saveShot } from "~/db/shots.server";
import { saveVersion, setHandKey } from "~/db/versions.server";
import { makeProxy } from "~/media/proxy.server";
import { probeFilm } from "~/media/probe.server";
import { seeded } from "../../demo/film/random";

export interface ProjectSize {
  shots: number;
  keys: number;
  /** Frames of a shot. */
  frames: number;
  /** Whether its proxy is made beforehand, so that nothing else is at work while the desk is. */
  proxy: boolean;
  /** Whether its picture is a quarter as large, so that a long film is soon made. */
  small: boolean;
}

export const FILM_ID = "bench";
/** What is measured in: the film is so large, or a quarter of it. */
const PICTURE = { width: 640, height: 360 };
const FPS = 25;

/** Somebody who walks about in a shot, now and then quickly, as a detector sees them. */
function walker(id: string, who: string, start: number, frames: number, random: () => number): Track {
  let x = 100 + 400 * random();
  let pace = 0;
  return {
    id,
    kind: "face",
    start,
    confidence: 0.9,
    who,
    sharpness: 0.8,
    boxes: Array.from({ length: frames }, () => {
      pace = 0.95 * pace + 0.8 * (random() - 0.5);
      x = Math.min(575, Math.max(30, x + pace));
      return { x: x + 0.4 * random(), y: 100 + 2 * random(), width: 45 + random(), height: 55 + random() };
    }),
  };
}

const smaller = (track: Track, size: number): Track => ({
  ...track,
  boxes: track.boxes.map((box) => box && scaleBox(box, size)),
});

/** Fills a data folder, and tells how long the film is. */
export async function makeProject(data: string, { shots, keys, frames, proxy, small }: ProjectSize): Promise<void> {
  const folder = join(data, "films", FILM_ID);
  mkdirSync(folder, { recursive: true });
  const file = join(folder, "source.mp4");
  const all = shots * frames;
  const size = small ? 0.25 : 1;
  execFileSync("ffmpeg", [
    ...[
      "-y",
      "-v",
      "error",
      "-f",
      "lavfi",
      "-i",
      `testsrc=s=${size * PICTURE.width}x${size * PICTURE.height}:r=${FPS}`,
    ],
    ...["-f", "lavfi", "-i", "sine=f=220:r=48000", "-frames:v", `${all}`, "-shortest"],
    ...["-c:v", "libx264", "-preset", "ultrafast", "-crf", "34", "-g", "50", "-c:a", "aac", file],
  ]);
  const info = await probeFilm(file);
  if (proxy) await makeProxy({ file, name: "Made-up.mp4", info }, join(folder, "proxy"));
  const random = seeded(300);
  const db = openDatabase(join(data, "glad-pan.db"));
  inTransaction(db, () => {
    insertFilm(db, { id: FILM_ID, name: "Made-up.mp4", file: join("films", FILM_ID, "source.mp4"), info });
    saveVersion(db, FILM_ID, newVersion({ id: "tall", name: "Vertical 9:16", width: 1080, height: 1920 }));
    saveVersion(db, FILM_ID, newVersion({ id: "square", name: "Square 1:1", width: 1080, height: 1080 }));
    const people = ["p1", "p2", "p3"].map((id, number) => ({ id, number, signature: null, seen: shots }));
    savePeople(db, FILM_ID, people);
    const cuts = Array.from({ length: shots - 1 }, (_, i) => hardTransition((i + 1) * frames, "cut"));
    saveTransitions(db, FILM_ID, {
      candidates: cuts.map((transition) => ({ transition, strength: 0.5 + 0.5 * random() })),
      settled: all,
    });
    for (let i = 0; i < shots; i++) {
      const range = { start: i * frames, end: (i + 1) * frames };
      saveShot(db, FILM_ID, freshShot(shotId(FILM_ID, range.start, new Set()), range, cuts[i - 1] ?? null));
      const tracks = people.map(({ id }) => smaller(walker(`s${i}-${id}`, id, range.start, frames, random), size));
      saveTracks(db, FILM_ID, range, tracks);
    }
    for (let i = 0; i < keys; i++) {
      const frame = Math.floor(((i + 0.5) * all) / keys);
      const [x, y, height] = [200 + 200 * random(), 180, 360].map((value) => size * value) as [number, number, number];
      setHandKey(db, "tall", { pane: 0, frame, x, y, height, easing: null });
    }
  });
  db.close();
}
