/** Which face belongs to which person. */
import { type Box, boxArea, boxCentre, intersectionArea } from "../../geometry/box";
import { type FrameDetections } from "../detecting/detection";
import { boxAt, type Track } from "./track";

/** The upper part of a person's box that contains the centre of the face. */
const HEAD_PART = 0.55;

/** Whether a face is at the head of a person. */
function isHeadOf(face: Box, person: Box): boolean {
  const centre = boxCentre(face);
  const inside = intersectionArea(face, person) > 0.5 * boxArea(face);
  return inside && centre.y < person.y + HEAD_PART * person.height;
}

/** Separates detections of persons by their faces: two people who pass each other look alike, and their faces do not. */
export function withFaces(frames: readonly FrameDetections[], faces: readonly Track[]): FrameDetections[] {
  return frames.map((seen) => ({
    ...seen,
    detections: seen.detections.map((detection) => {
      if (detection.kind !== "person") return detection;
      const heads = faces.filter((face) => {
        const box = boxAt(face, seen.frame);
        return box && isHeadOf(box, detection.box);
      });
      return heads.length === 1 ? { ...detection, faceId: heads[0]!.id } : detection;
    }),
  }));
}

/** Share of a face's frames in which its centre lies in the upper part of the person's box. */
function belonging(face: Track, person: Track): number {
  let together = 0;
  let seen = 0;
  face.boxes.forEach((box, i) => {
    if (!box) return;
    seen++;
    const body = boxAt(person, face.start + i);
    if (body && isHeadOf(box, body)) together++;
  });
  return seen > 0 ? together / seen : 0;
}

/** Assigns each face the person with whom it is seen most, one face per person at a time. */
export function joinFacesToPersons(tracks: Track[]): void {
  const persons = tracks.filter((track) => track.kind === "person");
  for (const face of tracks.filter((track) => track.kind === "face")) {
    const best = persons
      .map((person) => ({ person, share: belonging(face, person) }))
      .sort((a, b) => b.share - a.share)[0];
    if (best && best.share > 0.4) face.personId = best.person.id;
  }
}
