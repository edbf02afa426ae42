/**
 * A shot whose picture has bars of its own is framed as if what is between them were the whole picture: everything is
 * told from that area's corner on the way in, and from the picture's on the way out.
 */
import { type Box, moveBox, visiblePart } from "../geometry/box";
import type { CropWindow } from "../geometry/crop-window";
import type { FramedShot, ShotBefore, ShotFraming } from "./shot-framing";

const from = <W extends CropWindow>(window: W, { x, y }: Box): W => ({ ...window, x: window.x - x, y: window.y - y });
const to = <W extends CropWindow>(window: W, { x, y }: Box): W => ({ ...window, x: window.x + x, y: window.y + y });

/** What is to be framed, told from an area's corner; what is only in the bars is left out. */
export function insideArea(shot: ShotFraming, area: Box): ShotFraming {
  const corner = { x: -area.x, y: -area.y };
  const inside = (box: Box) => visiblePart(moveBox(box, corner), area);
  return {
    ...shot,
    tracks: shot.tracks
      .map((track) => ({ ...track, boxes: track.boxes.map((box) => box && inside(box)) }))
      .filter(({ boxes }) => boxes.some(Boolean)),
    handKeys: shot.handKeys.map((key) => from(key, area)),
    protect: shot.protect && inside(shot.protect),
  };
}

export const windowBefore = ({ window, who }: ShotBefore, area: Box): ShotBefore => ({
  window: window && from(window, area),
  who,
});

/** A path told from an area's corner, told from the picture's. */
export const outOfArea = (framed: FramedShot, area: Box): FramedShot => ({
  ...framed,
  keys: framed.keys.map((key) => to(key, area)),
  windows: framed.windows.map((window) => to(window, area)),
});
