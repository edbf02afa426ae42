/** Sizes of everybody and everything in a shot, relative to the largest of its kind. */
import type { Size } from "../../geometry/box";
import type { FrameRange } from "../../time/rate";
import { mean } from "../../numbers/mean";
import { faceSizeOf } from "../choosing/rank";
import type { Subject } from "../choosing/subject";
import { type Track, visibleFrames } from "../tracking/track";

/** Share of a shot for which somebody must be seen to make others count as small. */
const LASTING = 0.25;
/** A body whose box ends above this share of the picture's height is complete. */
const WHOLE_BODY = 0.985;

/** Least ratio of height to width of a standing body, and its height in heads. */
const STANDING = 2;
const HEADS = 8;

const isPerson = ({ kind }: Track): boolean => kind === "face" || kind === "person";

/** Mean height of a body while it is complete; null where it is cut off below, or there is none. */
function bodyHeight({ body }: Subject, picture: Size): number | null {
  const boxes = body?.boxes.filter((box) => box !== null) ?? [];
  if (boxes.length === 0 || mean(boxes.map(({ y, height }) => y + height)) > WHOLE_BODY * picture.height) return null;
  return mean(boxes.map(({ height }) => height));
}

/** Approximate size of a head, or of a thing: of a standing body it is an eighth. In heights of the picture. */
function headSize(track: Track, picture: Size): number {
  const boxes = track.boxes.filter((box) => box !== null);
  const height = mean(boxes.map((box) => box.height));
  const stands = track.kind === "person" && height > STANDING * mean(boxes.map((box) => box.width));
  return stands ? height / HEADS / picture.height : faceSizeOf(track, picture);
}

/**
 * Sizes from 0 to 1, people relative to people and things to things. Complete bodies are compared by height: their faces
 * are only some pixels, and the box depends on how they are turned.
 */
export function relativeSizes(subjects: readonly Subject[], shot: FrameRange, picture: Size): number[] {
  const measured = subjects.map((subject) => ({
    subject,
    person: isPerson(subject.track),
    size: headSize(subject.track, picture),
    height: bodyHeight(subject, picture),
  }));
  const lasting = measured.filter(({ subject }) => visibleFrames(subject.track) >= LASTING * (shot.end - shot.start));
  const largestOf = (person: boolean) =>
    lasting.filter((one) => one.person === person).sort((a, b) => b.size - a.size)[0];
  const largest = { person: largestOf(true), thing: largestOf(false) };
  return measured.map(({ person, size, height }) => {
    const other = person ? largest.person : largest.thing;
    if (!other) return 1;
    const share = height !== null && other.height !== null ? height / other.height : size / other.size;
    return Math.min(1, share);
  });
}
