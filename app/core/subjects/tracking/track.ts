import type { Box, Size } from "../../geometry/box";
import { mean } from "../../numbers/mean";
import type { FrameRange } from "../../time/rate";
import { joinRanges } from "../../time/ranges";
import { sureFaceScore, type TrackKind } from "../detecting/detection";
import type { Facing } from "../detecting/facing";
import type { Words } from "../text/words";

/** One thing followed through one shot. */
export interface Track {
  id: string;
  kind: TrackKind;
  /** Frame of the film of `boxes[0]`. */
  start: number;
  /** Its box, frame by frame; null while it is not seen. */
  boxes: (Box | null)[];
  /** Mean confidence of its detections, 0 to 1. */
  confidence: number;
  label?: string;
  /** For a face: the id of its person's track. */
  personId?: string;
  /** Id of the person of the film that it is; the same in every shot. */
  who?: string;
  /** Colours of its clothes or surface, from `signatureOf`. */
  signature?: number[];
  /** Sharpness relative to the sharpest in the shot, 0 to 1. */
  sharpness?: number;
  /** For a thing: the side with more detail, -1 at the left to 1 at the right. */
  detailSide?: number;
  /** For motion: moved by an arm that leads out of the picture. */
  held?: true;
  /** For a face: when it speaks. */
  speaking?: FrameRange[];
  /** For text: what was read, if anything was. */
  words?: Words;
  /** For text that stays throughout a shot: it may be a sign in the scene. */
  mayBeSign?: true;
  /** When it moves by itself. */
  acting?: FrameRange[];
  /** For a face: its direction, at the frames at which it was detected. */
  facing?: Facing[];
  /** For a face: movement of its mouth, frame by frame from `start`, in thousandths; only until `speaking` is known. */
  mouth?: (number | null)[];
}

export const boxAt = (track: Track, frame: number): Box | null => track.boxes[frame - track.start] ?? null;

/** Box of a track at the frame nearest to one at which it is seen; null where it never is. */
export function nearestBox({ start, boxes }: Track, frame: number): Box | null {
  const at = frame - start;
  for (let away = 0; away < boxes.length + Math.abs(at); away++) {
    const box = boxes[at - away] ?? boxes[at + away];
    if (box) return box;
  }
  return null;
}

/** Whether a face may be a pattern mistaken for one: it has no body, and is not certain by itself. */
export function isDoubtfulFace({ kind, confidence, personId, boxes }: Track, picture: Size): boolean {
  if (kind !== "face" || personId !== undefined) return false;
  const heights = boxes.flatMap((box) => (box ? [box.height] : []));
  return confidence < sureFaceScore(mean(heights) / picture.height);
}

/** The tracks of what lies over the film. */
export const laidOver = (tracks: readonly Track[]): Track[] =>
  tracks.filter(({ kind }) => kind === "text" || kind === "inset");

/** What a text says, in one line; null where it was not read, and for anything else. */
export const wordsOf = ({ words }: Track): string | null => words?.lines.join(" ") ?? null;

export const visibleFrames = (track: Track): number => track.boxes.reduce((count, box) => count + (box ? 1 : 0), 0);

/** The frames from its first to its last box. */
export const extentOf = (track: Track): FrameRange => ({ start: track.start, end: track.start + track.boxes.length });

/** Whether two tracks are seen at the same moment anywhere. */
export function seenTogether(a: Track, b: Track): boolean {
  const end = Math.min(extentOf(a).end, extentOf(b).end);
  for (let frame = Math.max(a.start, b.start); frame < end; frame++)
    if (boxAt(a, frame) && boxAt(b, frame)) return true;
  return false;
}

/** Joins two tracks under the first one's id; where both are seen, the first one's box is used. */
export function joinTracks(first: Track, second: Track): Track {
  const [a, b] = [extentOf(first), extentOf(second)];
  const start = Math.min(a.start, b.start);
  const frames = Array.from({ length: Math.max(a.end, b.end) - start }, (_, i) => start + i);
  const speaking = [...(first.speaking ?? []), ...(second.speaking ?? [])].sort((p, q) => p.start - q.start);
  const acting = joinRanges([...(first.acting ?? []), ...(second.acting ?? [])]);
  const facing = [...(first.facing ?? []), ...(second.facing ?? [])].sort((p, q) => p.frame - q.frame);
  const mouthAt = ({ mouth, start: from }: Track, frame: number) => mouth?.[frame - from] ?? null;
  return {
    ...first,
    start,
    boxes: frames.map((frame) => boxAt(first, frame) ?? boxAt(second, frame)),
    ...(speaking.length > 0 ? { speaking } : {}),
    ...(acting.length > 0 ? { acting } : {}),
    ...(facing.length > 0 ? { facing } : {}),
    ...(first.mouth || second.mouth
      ? { mouth: frames.map((frame) => mouthAt(first, frame) ?? mouthAt(second, frame)) }
      : {}),
  };
}
