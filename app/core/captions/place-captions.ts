/** Places captions in a version: low, but off faces and the film's own text, and moved as rarely as possible. */
import { boxIn, layerSize } from "../composition/layers/draw-layer";
import type { Layer } from "../composition/layers/layer";
import { safeBox, type SafeArea } from "../composition/layers/safe-area";
import { type Composition, inFrame, type ShownAt } from "../composition/composition";
import { type Box, boxArea, boxIntersection, grownBox, type Size } from "../geometry/box";
import { boxAt, type Track } from "../subjects/tracking/track";
import { type FrameRange, inRange } from "../time/rate";
import type { Caption } from "./caption";
import { linesOf } from "./break-text";
import { captionLines, captionSize, LETTER, lineLengthIn } from "./caption-layers";
import type { CaptionSettings } from "./caption-settings";

/** Places in the safe area where a caption may stand, the usual one first. */
const PLACES = [1, 0.86, 0.72, 0.58, 0.44, 0.3, 0.16, 0];
/** Frames between those that are examined. */
const STRIDE = 6;
/** Costs: of covering something with the whole caption, of standing at the top, and of moving, lower after a pause. */
const COVERING = 10;
const HEIGHT = 1.2;
const MOVED = 1;
const MOVED_AFTER_PAUSE = 0.5;
const PAUSE_SECONDS = 1;
/** Margin around a face: chin and mouth are to stay visible. */
const FACE_MARGIN = 0.15;

/** Kinds of tracks that captions must not cover. */
const KEPT_OFF = new Set<Track["kind"]>(["face", "text", "inset"]);

/** Boxes that captions avoid at a frame, in pixels of the version. */
export type ObstaclesAt = (frame: number) => readonly Box[];

/** Faces and texts of shots where a version shows them. */
export function obstaclesIn(
  shots: readonly (FrameRange & { tracks: readonly Track[] })[],
  shown: ShownAt,
): ObstaclesAt {
  return (frame) => {
    const shot = shots.find((range) => inRange(frame, range));
    if (!shot) return [];
    let composition: Composition | null = null;
    return shot.tracks.flatMap((track) => {
      if (!KEPT_OFF.has(track.kind)) return [];
      const box = boxAt(track, frame);
      if (!box) return [];
      composition ??= shown(frame);
      const margin = track.kind === "face" ? FACE_MARGIN * box.height : 0;
      return inFrame(grownBox(box, margin), composition) ?? [];
    });
  };
}

/** Approximate boxes of layers in a version, without measuring text: layers are not covered either. */
export function layerBoxesIn(layers: readonly Layer[], frame: Size, safe: SafeArea): ObstaclesAt {
  const room = safeBox(safe, frame);
  const boxes = layers.map((layer) => ({ range: layer.range, box: boxIn(room, layer, sizeOf(layer, frame, room)) }));
  return (at) => boxes.flatMap(({ range, box }) => (range === null || inRange(at, range) ? [box] : []));
}

/** Approximate size of a layer. */
function sizeOf(layer: Layer, frame: Size, room: Size): Size {
  if (layer.kind !== "text") return layerSize(layer, frame);
  const em = layer.size * Math.min(frame.width, frame.height);
  const lineLength = Math.max(1, Math.floor((layer.width * room.width) / (LETTER * em)));
  return captionSize(linesOf(layer.text, lineLength), layer, frame);
}

/** The frame that captions are placed in. */
export interface CaptionGround {
  /** Size of the version, and its safe area. */
  frame: Size;
  safe: SafeArea;
  obstaclesAt: ObstaclesAt;
  /** Frames per second. */
  fps: number;
}

/**
 * Place of each caption in the safe area by its id, 1 at its foot. Minimises the total cost over all captions (Viterbi,
 * 1967): covering costs most, moving between captions less, and height least. A caption that the editor has moved stays.
 * @param captions in order
 */
export function placeCaptions(
  captions: readonly Caption[],
  settings: CaptionSettings,
  { frame, safe, obstaclesAt, fps }: CaptionGround,
): Map<string, number> {
  const own = ({ id }: Caption) => settings.places[id] ?? settings.place;
  if (captions.every((caption) => own(caption) !== null)) {
    return new Map(captions.map((caption) => [caption.id, own(caption)!]));
  }
  const room = safeBox(safe, frame);
  const lineLength = lineLengthIn(settings, frame, safe);
  const costs = captions.map((caption) => {
    const size = captionSize(captionLines(caption, lineLength, settings.speakers), settings, frame);
    const seen = framesEvery(caption, STRIDE).map(obstaclesAt);
    return PLACES.map((place) => {
      const box = {
        x: room.x + (room.width - size.width) / 2,
        y: room.y + place * (room.height - size.height),
        ...size,
      };
      const covered =
        seen.map((boxes) => coveredShare(box, boxes)).reduce((sum, share) => sum + share, 0) / seen.length;
      return COVERING * covered + HEIGHT * (1 - place);
    });
  });
  const chosen = cheapest(captions, costs, fps);
  return new Map(captions.map((caption, i) => [caption.id, own(caption) ?? PLACES[chosen[i]!]!]));
}

const framesEvery = ({ start, end }: FrameRange, stride: number): number[] => {
  const frames: number[] = [];
  for (let frame = start; frame < end; frame += stride) frames.push(frame);
  return frames;
};

/** Share of a caption that covers boxes. */
const coveredShare = (caption: Box, boxes: readonly Box[]): number => {
  const covered = boxes.reduce((sum, box) => {
    const over = boxIntersection(caption, box);
    return sum + (over ? boxArea(over) : 0);
  }, 0);
  return Math.min(1, covered / Math.max(1, boxArea(caption)));
};

/** The place of each caption, by its number, of least total cost. */
function cheapest(captions: readonly Caption[], costs: readonly number[][], fps: number): number[] {
  let before = costs[0] ?? [];
  const from: number[][] = [];
  for (let i = 1; i < costs.length; i++) {
    const pause = (captions[i]!.start - captions[i - 1]!.end) / fps;
    const moved = pause > PAUSE_SECONDS ? MOVED_AFTER_PAUSE : MOVED;
    const [least] = before.map((cost, place) => ({ cost, place })).sort((a, b) => a.cost - b.cost);
    const came: number[] = [];
    before = costs[i]!.map((cost, place) => {
      const stays = before[place]! <= least!.cost + moved;
      came[place] = stays ? place : least!.place;
      return cost + (stays ? before[place]! : least!.cost + moved);
    });
    from.push(came);
  }
  let place = before.indexOf(Math.min(...before));
  const places = [place];
  for (let i = from.length - 1; i >= 0; i--) {
    place = from[i]![place]!;
    places.unshift(place);
  }
  return places;
}
