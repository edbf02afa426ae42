import { packActivity } from "~/core/activity/activity";
import type { Project } from "~/core/formats/project";
import { newVersion } from "~/core/version/film-state";
import { freshShot } from "~/core/shots/shot";
import { hardTransition } from "~/core/shots/transition";
import { USUAL_ATTENTION } from "~/core/subjects/attention/attention-settings";
import { INFO } from "./film-info";

const BOX = { x: 10, y: 20, width: 30, height: 40 };
const light = Uint8Array.from({ length: INFO.frames }, (_, frame) => frame % 250);

/** All work there can be on a film, and all that can be found in one: nothing of it is as it usually is. */
export const WORKED_PROJECT: Project = {
  format: "glad-pan/project",
  version: 2,
  film: {
    name: "Kite.mp4",
    info: INFO,
    fingerprint: "f-1",
    sensitivity: 70,
    attention: { ...USUAL_ATTENTION, shortestStay: 4, mustHave: ["p1"] },
  },
  clips: [
    {
      id: "c1",
      name: "Kite.mp4",
      file: "clips/kite.mp4",
      info: { ...INFO, frames: 120 },
      start: 0,
      end: 120,
      in: null,
      out: 110,
      area: { x: 0, y: 0, width: 1920, height: 1080 },
    },
    {
      id: "c2",
      name: "Boat.mp4",
      file: "clips/boat.mp4",
      info: { ...INFO, frames: 180 },
      start: 120,
      end: 300,
      in: 5,
      out: null,
      area: { x: 656, y: 0, width: 608, height: 1080 },
    },
  ],
  shots: [
    { ...freshShot("one", { start: 0, end: 120 }, null), name: "Opening", protect: BOX },
    {
      ...freshShot("two", { start: 120, end: 300 }, hardTransition(120, "jump")),
      excluded: true,
      active: { x: 0, y: 60, width: 1920, height: 960 },
    },
  ],
  versions: [
    {
      ...newVersion({ id: "square", name: "Square", width: 1080, height: 1080 }),
      trim: { in: 10, out: 290, leftOut: [{ start: 50, end: 60 }] },
      limitSeconds: 60,
      usual: { calm: 20 },
      safeArea: { left: 0.1, top: 0.1, right: 0.1, foot: 0.3 },
      shots: [{ shotId: "one", says: { movement: "still" } }],
      handKeys: [{ pane: 0, frame: 3, x: 960, y: 540, height: 1080, easing: "hold" }],
    },
    { ...newVersion({ id: "tall", name: "Tall", width: 1080, height: 1920 }), shots: [], handKeys: [] },
  ],
  marks: [{ thing: "m", frame: 5, box: BOX }],
  people: [
    { id: "p1", number: 0, name: "Ilse", mergedInto: null, signature: [1, 2], seen: 90 },
    { id: "p2", number: 1, name: null, mergedInto: "p1", signature: null, seen: 8 },
  ],
  trackEdits: [{ trackId: "s0-face-1", edit: { removed: [{ start: 0, end: 10 }], joinedTo: null } }],
  captions: [
    { id: "t1", start: 12, end: 60, text: "The wind\nturns", speaker: "Ada" },
    { id: "t2", start: 130, end: 190, text: "Let go", speaker: null },
  ],
  analysis: {
    candidates: [{ transition: hardTransition(120, "jump"), strength: 0.8 }],
    tracks: [
      {
        range: { start: 0, end: 120 },
        tracks: [{ id: "s0-face-1", kind: "face", start: 4, places: [[10, 20, 300, 400], 0], confidence: 0.9 }],
      },
      { range: { start: 120, end: 300 }, tracks: [] },
    ],
    markTracks: [
      { basis: "m 5", track: { id: "mark-m", kind: "mark", start: 5, places: [[1, 2, 3, 4]], confidence: 1 } },
    ],
    undecoded: [{ start: 298, end: 300 }],
    activity: Buffer.from(packActivity({ light, contrast: light, change: light, speech: light })).toString("base64"),
  },
};
