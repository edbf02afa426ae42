import { type FilmState, newVersion, type VersionState } from "~/core/version/film-state";
import { USUAL_ATTENTION } from "~/core/subjects/attention/attention-settings";
import { freshShot } from "~/core/shots/shot";
import { hardTransition } from "~/core/shots/transition";
import { clockOf } from "~/core/time/timecode";

/** A version for phones in which nothing is set. */
export const TALL: VersionState = {
  ...newVersion({ id: "tall", name: "Tall", width: 1080, height: 1920 }),
  shots: new Map(),
  handKeys: [],
};

/** A film of 300 frames at 30 per second, cut at frame 100, with one version and two people. */
export const TWO_SHOTS: FilmState = {
  film: {
    id: "film",
    frames: 300,
    picture: { width: 1920, height: 1080 },
    clock: clockOf({ num: 30, den: 1 }, null),
    candidates: [
      { transition: hardTransition(100, "cut"), strength: 0.8 },
      { transition: hardTransition(180, "jump"), strength: 0.4 },
    ],
    analysed: true,
  },
  sensitivity: 50,
  attention: USUAL_ATTENTION,
  shots: [
    freshShot("one", { start: 0, end: 100 }, null),
    freshShot("two", { start: 100, end: 300 }, hardTransition(100, "cut")),
  ],
  clips: [],
  versions: [TALL],
  marks: [],
  people: [
    { id: "p1", number: 0, name: null, mergedInto: null },
    { id: "p2", number: 1, name: null, mergedInto: null },
  ],
  trackEdits: new Map(),
  captions: [],
};
