/** Libraries that are made once before the browser tests, each with a film that has been looked through; tests work on copies. */
import { join } from "node:path";
import { TestServer } from "./server";

export interface PreparedFilm {
  /** What the film is called. */
  name: string;
  /** A film that ships. */
  source: string;
  /** What ffmpeg makes of it; null for the film as it is. */
  args: readonly string[] | null;
  /** The size of the film's one version: small, since most that is rendered is only looked at for what it shows. */
  version: { width: number; height: number };
}

const fromDemo = (startSeconds: number, seconds: number, name: string): PreparedFilm => ({
  name,
  source: "demo/ferrow-kite-day.mp4",
  version: { width: 540, height: 960 },
  // Half as wide and as high as the demo film, so that a version shows as much of it as one of 1080 × 1920 does.
  args: ["-ss", String(startSeconds), "-t", String(seconds), "-vf", "scale=960:540", "-preset", "veryfast"],
});

export const PREPARED = {
  "two-shots": {
    name: "two-shots.mp4",
    source: "demo/clips/two-shots.mp4",
    args: null,
    version: { width: 270, height: 480 },
  },
  /** A title, and some of the shot after it. */
  title: fromDemo(0, 4, "kite title.mp4"),
  /** Two who sit apart and talk in turn. */
  talk: fromDemo(10, 9.9, "talk.mp4"),
} satisfies Record<string, PreparedFilm>;
export type Prepared = keyof typeof PREPARED;

export const preparedFolder = (name: Prepared): string => join("test-data", "prepared", name);

/** A server on a copy of a prepared library. */
export const serverWith = (name: Prepared): TestServer => new TestServer({ copyOf: preparedFolder(name) });
