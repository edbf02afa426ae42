/**
 * A shot whose picture has bars of its own is framed as if what is between them were the whole picture: everything is
 * told from that area's corner on the way in, and from the picture's on the way out.
 */
import { type Box, moveBox, visiblePart } from "../geometry/box";
import type { CropWindow } from "../geometry/crop-window";
import type { Track } from "../subjects/tracking/track";
import type { FramedPane, ShotBefore, ShotFraming } from "./shot-framing";

/** A window told from an area's corner. */
export const from = <W extends CropWindow>(window: W, { x, y }: Box): W => ({
  ...window,
  x: window.x - x,
  y: window.y - y,
});
/** A window told from the picture's corner. */
export const to = <W extends CropWindow>(window: W, { x, y }: Box): W => ({
  ...window,
  x: window.x + x,
  y: window.y + y,
});

/** A box told from an area's corner, as far as it lies in it; null where it does not. */
export const boxInside = (box: Box, area: Box): Box | null =>
  visiblePart(moveBox(box, { x: -area.x, y: -area.y }), area);

/** A track told from an area's corner, as far as it lies in it. */
export const trackInside = (track: Track, area: Box): Track => ({
  ...track,
  boxes: track.boxes.map((box) => box && boxInside(box, area)),
});

/** What is to be framed, told from an area's corner; what is only in the bars is left out. */
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

/** A path told from an area's corner, told from the picture's. */
export const outOfArea = <Framed extends Pick<FramedPane, "keys" | "windows">>(framed: Framed, area: Box): Framed => ({
  ...framed,
  keys: framed.keys.map((key) => to(key, area)),
  windows: framed.windows.map((window) => to(window, area)),
});
