/** Flags about people: empty frames with somebody beside them, and too little looking room. */
import { filmPanes, type ShownAt } from "../composition/composition";
import { boxCentre, boxContains, type Size } from "../geometry/box";
import { isMust } from "../subjects/attention/attention-settings";
import { letterOfId } from "../subjects/choosing/people";
import { facingThrough } from "../subjects/detecting/facing";
import { thingOfTrack } from "../subjects/marks/marked-things";
import { boxAt, extentOf, isDoubtfulFace, type Track } from "../subjects/tracking/track";
import { framesPerSecond, rangeLength } from "../time/rate";
import { flagsTexts } from "../../texts/flags";
import type { CheckedShot } from "./checked-shot";
import type { Flag } from "./flag";
import { troubleIn } from "./trouble";

const t = flagsTexts.peopleFlags;

/** Seconds over which somebody's facing is averaged. */
const FACING_SECONDS = 0.4;
/** A head turned by less, as a sine, faces the camera. */
const TURNED = 0.4;
/** Looking room before a turned face below which the edge is near, as a share of the window. */
const LEAST_ROOM = 0.3;

const isSomebody = (track: Track, picture: Size): boolean =>
  track.kind === "person" || (track.kind === "face" && !isDoubtfulFace(track, picture));

/**
 * Where nobody is in the frame while somebody is in the picture. Whether the subject is shown is checked separately, while
 * it is seen.
 */
export function emptyFrameFlags(
  { kept, tracks, area, limits, rate }: CheckedShot,
  subject: Track | null,
  shown: ShownAt,
): Flag[] {
  const people = tracks.filter((track) => isSomebody(track, area));
  const isEmpty = (frame: number) => {
    if (subject && boxAt(subject, frame)) return false;
    const there = people.flatMap((track) => boxAt(track, frame) ?? []);
    const panes = filmPanes(shown(frame));
    const isIn = (box: (typeof there)[number]) =>
      panes.some(({ source }) => boxContains(source, { ...boxCentre(box), width: 0, height: 0 }));
    return there.length > 0 && panes.length > 0 && !there.some(isIn);
  };
  if (people.length === 0) return [];
  return troubleIn(kept, rate, {
    kind: "empty-frame",
    limit: limits.empty,
    at: (frame) => (isEmpty(frame) ? 1 : 0),
    text: t.nobodyInTheFrame,
  });
}

/** Where a required person is not shown. */
export function absentFlags({ kept, tracks, settings, limits, rate }: CheckedShot, shown: ShownAt): Flag[] {
  return settings.mustHave.flatMap((who) => {
    const theirs = tracks.filter((track) => isMust(track, [who]));
    const name = thingOfTrack(who) === null ? letterOfId(who) : t.yourMark;
    const isShown = (frame: number) => {
      const panes = filmPanes(shown(frame));
      return theirs.some((track) => {
        const box = boxAt(track, frame);
        const middle = box && { ...boxCentre(box), width: 0, height: 0 };
        return middle && panes.some(({ source }) => boxContains(source, middle));
      });
    };
    return troubleIn(kept, rate, {
      kind: "absent",
      limit: limits.lost,
      at: (frame) => (isShown(frame) ? 0 : 1),
      text: (seconds) => t.mustBeInThePicture(name, seconds),
    }).map((flag) => ({ ...flag, who }));
  });
}

/** Where the subject looks out of the nearer edge. */
export function lookRoomFlags(
  { kept, tracks, limits, rate }: CheckedShot,
  subject: Track | null,
  shown: ShownAt,
): Flag[] {
  const face =
    subject?.kind === "person"
      ? tracks.find(({ kind, personId }) => kind === "face" && personId === subject.id)
      : subject;
  if (!face?.facing?.length || face.kind !== "face") return [];
  const extent = extentOf(face);
  if (rangeLength(extent) === 0) return [];
  const facing = facingThrough(face.facing, extent, Math.round(FACING_SECONDS * framesPerSecond(rate)));
  const missingRoom = (frame: number) => {
    const box = boxAt(face, frame);
    const side = facing[frame - face.start];
    if (!box || side === undefined || !(Math.abs(side) > TURNED)) return 0;
    const pane = filmPanes(shown(frame)).find(({ source }) => boxContains(source, box, box.width));
    if (!pane) return 0;
    const place = (boxCentre(box).x - pane.source.x) / pane.source.width;
    const room = side > 0 ? 1 - place : place;
    return Math.max(0, (LEAST_ROOM - room) / LEAST_ROOM);
  };
  return troubleIn(kept, rate, {
    kind: "looks-out",
    limit: limits.looksOut,
    at: missingRoom,
    text: t.lookingRoom,
  });
}
