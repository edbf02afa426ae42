import { describe, expect, test } from "@jest/globals";
import { packActivity, unpackActivity } from "../activity/activity";
import { Move, type MovedPart } from "../edits/move";
import { hardTransition } from "../shots/transition";
import { packTrack, unpackTrack } from "../subjects/tracking/packed-tracks";
import type { Track } from "../subjects/tracking/track";
import { moveFindings, movedTrackId, type Findings } from "./move-findings";

const SIZE = { width: 1920, height: 1080 };
const HALF = { from: { x: 0, y: 0, ...SIZE }, to: { x: 480, y: 270, width: 960, height: 540 } };
/** Two clips of 100 and 200 frames in the other order; the second is at half its size in the middle now. */
const PARTS: MovedPart[] = [
  { from: { start: 0, end: 100 }, to: { start: 200, end: 300 }, shift: 200 },
  { from: { start: 100, end: 300 }, to: { start: 0, end: 200 }, shift: -100, areas: HALF },
];
const MOVE = new Move(PARTS, 1, SIZE, SIZE);
const box = { x: 100, y: 200, width: 40, height: 80 };
const track = (id: string, start: number, more: Partial<Track> = {}): Track => ({
  id,
  kind: "face",
  start,
  boxes: [box, null, box],
  confidence: 0.9,
  ...more,
});
const light = Uint8Array.from({ length: 300 }, (_, frame) => (frame < 100 ? 10 : 90));
const FOUND: Findings = {
  candidates: [
    { transition: hardTransition(50, "cut"), strength: 0.4 },
    { transition: { kind: "dissolve", frame: 150, range: { start: 145, end: 156 } }, strength: 0.9 },
  ],
  tracks: [
    { range: { start: 0, end: 100 }, tracks: [packTrack(track("s0-face-1", 10, { personId: "s0-person-2" }))] },
    {
      range: { start: 100, end: 300 },
      tracks: [
        packTrack(
          track("s100-face-1", 120, {
            speaking: [{ start: 121, end: 123 }],
            facing: [{ frame: 122, side: 0.5 }],
            personId: "s999-person-2",
          }),
        ),
        packTrack(track("s400-face-1", 120)),
      ],
    },
    { range: { start: 60, end: 140 }, tracks: [packTrack(track("s60-face-1", 61))] },
  ],
  undecoded: [{ start: 98, end: 103 }],
  activity: packActivity({ light, contrast: light, change: light, speech: light }),
};
const moved = moveFindings(FOUND, PARTS, MOVE, 300);

describe("what was found in clips that have moved", () => {
  test("are cuts where they are now, in order, with the frames that are mixed", () => {
    expect(moved.candidates).toEqual([
      { transition: { kind: "dissolve", frame: 50, range: { start: 45, end: 56 } }, strength: 0.9 },
      { transition: hardTransition(250, "cut"), strength: 0.4 },
    ]);
  });

  test("are tracks with all that is known of them, by the frame that their shot begins at now", () => {
    const [first, second, ...others] = moved.tracks;
    expect(others).toEqual([]);
    expect(first!.range).toEqual({ start: 200, end: 300 });
    expect(first!.tracks.map(unpackTrack)).toEqual([track("s200-face-1", 210, { personId: "s200-person-2" })]);
    expect(second!.range).toEqual({ start: 0, end: 200 });
    const half = { x: 530, y: 370, width: 20, height: 40 };
    expect(second!.tracks.map(unpackTrack)).toEqual([
      {
        ...track("s0-face-1", 20, { speaking: [{ start: 21, end: 23 }], facing: [{ frame: 22, side: 0.5 }] }),
        boxes: [half, null, half],
      },
    ]);
  });

  test("are pictures that could not be decoded, and what goes on", () => {
    expect(moved.undecoded).toEqual([
      { start: 0, end: 3 },
      { start: 298, end: 300 },
    ]);
    const { speech } = unpackActivity(moved.activity!);
    expect([speech.length, speech[0], speech[199], speech[200], speech[299]]).toEqual([300, 90, 90, 10, 10]);
    expect(moveFindings({ ...FOUND, activity: null }, PARTS, MOVE, 300).activity).toBeNull();
  });
});

test("a clip that is gone takes what was found in it along", () => {
  const only = [PARTS[0]!];
  const move = new Move(only, 1, SIZE, SIZE);
  const left = moveFindings(FOUND, only, move, 300);
  expect(left.candidates.map(({ transition }) => transition.frame)).toEqual([250]);
  expect(left.tracks.map(({ range }) => range.start)).toEqual([200]);
  expect(left.undecoded).toEqual([{ start: 298, end: 300 }]);
});

test("a track is called by where its shot begins; any other name says nothing", () => {
  expect(
    ["s0-face-1", "s100-s5", "s5-", "mark-m", "x s0-1", "s300-face-1"].map((id) => movedTrackId(id, MOVE)),
  ).toEqual(["s200-face-1", "s0-s5", "s205-", null, null, null]);
});
