/**
 * Frames a letterboxed shot as if the picture area inside the bars were the whole picture: coordinates are converted to
 * that area's corner on the way in, and back on the way out.
 */
import { type Box, moveBox, visiblePart } from "../geometry/box";
import type { CropWindow } from "../geometry/crop-window";
import type { Track } from "../subjects/tracking/track";
import type { FramedPane, ShotBefore, ShotFraming } from "./shot-framing";

/** A window relative to an area's corner. */
export const from = <W extends CropWindow>(window: W, { x, y }: Box): W => ({
  ...window,
  x: window.x - x,
  y: window.y - y,
});
/** A window relative to the picture's corner. */
export const to = <W extends CropWindow>(window: W, { x, y }: Box): W => ({
  ...window,
  x: window.x + x,
  y: window.y + y,
});

/** The part of a box inside an area, relative to its corner; null if there is none. */
export const boxInside = (box: Box, area: Box): Box | null =>
  visiblePart(moveBox(box, { x: -area.x, y: -area.y }), area);

/** The part of a track inside an area, relative to its corner. */
export const trackInside = (track: Track, area: Box): Track => ({
  ...track,
  boxes: track.boxes.map((box) => box && boxInside(box, area)),
});

/** A shot's framing relative to an area's corner; tracks only in the bars are left out. */
export function insideArea(shot: ShotFraming, area: Box): ShotFraming {
  return {
    ...shot,
    tracks: shot.tracks.map((track) => trackInside(track, area)).filter(({ boxes }) => boxes.some(Boolean)),
    handKeys: shot.handKeys.map((key) => from(key, area)),
    others: shot.others.map((pane) => ({ ...pane, handKeys: pane.handKeys.map((key) => from(key, area)) })),
    protect: shot.protect && boxInside(shot.protect, area),
  };
}

export const windowsBefore = ({ windows, who }: ShotBefore, area: Box): ShotBefore => ({
  windows: windows.map((window) => from(window, area)),
  who,
});

/** A path relative to an area's corner, relative to the picture's. */
export const outOfArea = <Framed extends Pick<FramedPane, "keys" | "windows">>(framed: Framed, area: Box): Framed => ({
  ...framed,
  keys: framed.keys.map((key) => to(key, area)),
  windows: framed.windows.map((window) => to(window, area)),
});
