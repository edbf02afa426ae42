import { expect, test } from "@jest/globals";
import { TALL, TWO_SHOTS } from "../../../tests/support/film-state";
import type { Flag } from "../checks/flag";
import { NO_FAULTS } from "../checks/picture-faults";
import type { Track } from "../subjects/tracking/track";
import { lay } from "./lay";
import { shotSettings } from "./shot-settings";
import { versionFlags, type VersionToCheck } from "./version-flags";

const FILM = { picture: { width: 1920, height: 1080 }, rate: { num: 30, den: 1 } };

/** A face that stands at a place from a frame to another. */
const face = (id: string, start: number, end: number, x: number): Track => ({
  id,
  kind: "face",
  start,
  boxes: Array.from({ length: end - start }, () => ({ x, y: 300, width: 120, height: 150 })),
  confidence: 0.95,
  who: "p0",
});

const CHECK: VersionToCheck = {
  layers: [],
  safeArea: null,
  limits: TALL.checkLimits,
  captions: [
    { id: "c", start: 110, end: 115, text: "Nobody reads a line as long as this one so quickly.", speaker: null },
  ],
  pace: 20,
  lacking: { undecoded: [], longHolds: [{ start: 20, end: 60 }] },
  faults: NO_FAULTS,
};

/** The flags of both shots, with who is seen in each. */
const flagsWith = (tracks: readonly (readonly Track[])[], check: Partial<VersionToCheck> = {}): string[][] =>
  versionFlags(lay(FILM, TALL, shotSettings(TWO_SHOTS, TALL), tracks), { ...CHECK, ...check }).map((flags) =>
    flags.map(({ kind }: Flag) => kind),
  );
const NOBODY = [[], []];

test("each shot has its own flags, of the film and of its framing, in order of their frames", () => {
  const first = ["unsure-subject", "repeated-picture"];
  expect(flagsWith(NOBODY)).toEqual([first, ["unsure-subject", "caption-pace"]]);
  const unsure = flagsWith(NOBODY, { strengths: new Map([[100, 0.52]]) });
  expect(unsure).toEqual([first, ["unsure-cut", "unsure-subject", "caption-pace"]]);
  expect(flagsWith(NOBODY, { strengths: new Map([[100, 0.9]]) })[1]).not.toContain("unsure-cut");
  expect(flagsWith(NOBODY, { strengths: new Map([[180, 0.5]]) })[1]).not.toContain("unsure-cut");
});

test("eyes that jump from a shot to the next are flagged at the second, and not without the first", () => {
  const [left, right] = [face("a", 0, 100, 100), face("b", 100, 300, 1700)];
  // At both edges of the picture the window has no room to bring them to one place.
  expect(flagsWith([[left], [right]])[1]).toContain("jolt");
  expect(flagsWith([[], [right]])[1]).not.toContain("jolt");
  expect(flagsWith([[left], [{ ...right, who: "p1" }]])[1]).not.toContain("jolt");
});

test("a face under a phone's buttons is flagged where the version has a safe area", () => {
  const tracks = [[face("a", 0, 100, 900)], []];
  const safeArea = { left: 0.05, top: 0.6, right: 0.05, foot: 0.1 };
  expect(flagsWith(tracks, { safeArea })[0]).toContain("face-covered");
  expect(flagsWith(tracks)[0]).not.toContain("face-covered");
});
