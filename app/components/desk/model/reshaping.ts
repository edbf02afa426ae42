import type { KEY_CHANGES, SingleCommand } from "~/core/edits/command";
import type { Point, Size } from "~/core/geometry/box";
import { clampWindow, type CropWindow } from "~/core/geometry/crop-window";
import { everyFrame, keysThrough, type Led, reversed, shiftedSoftly, smoothed } from "~/core/path/reshape";
import { activeArea } from "~/core/shots/shot";
import { type FrameRange, inRange } from "~/core/time/rate";
import { clipRanges } from "~/core/time/ranges";
import { windowAspect } from "./windows";
import type { DeskShot, DeskVersion } from "./desk-types";

/** The path in one shot before it is reshaped. */
interface Part {
  shot: DeskShot;
  start: number;
  windows: readonly CropWindow[];
}

/** A path that is being reshaped, with its parameters. */
export interface Reshaping {
  how: Exclude<(typeof KEY_CHANGES)[number], "deleted">;
  parts: readonly Part[];
  /** Standard deviation of the smoothing, in seconds. */
  smoothing: number;
  /** How far the keys may lead the window off the path, in percent of the window's width. */
  tolerance: number;
  /** Offset in pixels of the source. */
  by: Point;
  /** Seconds over which a shift comes and goes. */
  fade: number;
}

const USUAL = { tolerance: 2, by: { x: 0, y: 0 }, fade: 0.5 };

/** The steered path, in each of the shots it passes through. */
export function steeredWay(shots: readonly DeskShot[], led: readonly Led[]): Reshaping | null {
  const parts = shots.flatMap((shot) => {
    const own = led.filter(({ frame }) => inRange(frame, shot));
    return own.length > 1 ? [{ shot, ...everyFrame(own) }] : [];
  });
  return parts.length > 0 ? { how: "steered", parts, smoothing: 0.2, ...USUAL } : null;
}

/** The path over a range, in each of its shots that has been solved. */
export function wayOf(
  shots: readonly DeskShot[],
  marked: FrameRange,
  how: Exclude<Reshaping["how"], "steered">,
): Reshaping | null {
  const parts = shots.flatMap((shot) => {
    const [range] = clipRanges([marked], shot);
    const windows = range && shot.framed?.windows.slice(range.start - shot.start, range.end - shot.start);
    return range && windows && windows.length > 1 ? [{ shot, start: range.start, windows }] : [];
  });
  return parts.length > 0 ? { how, parts, smoothing: how === "smoothed" ? 0.3 : 0, ...USUAL } : null;
}

function reshaped({ how, smoothing, by, fade }: Reshaping, windows: readonly CropWindow[], fps: number) {
  switch (how) {
    case "steered":
    case "smoothed":
      return smoothed(windows, smoothing * fps);
    case "shifted":
      return shiftedSoftly(windows, by, Math.round(fade * fps));
    case "reversed":
      return reversed(windows);
  }
}

/** The commands that replace the keys of a range by those of its reshaped path, one for each shot. */
export function reshapeCommands(
  reshaping: Reshaping,
  version: DeskVersion,
  picture: Size,
  fps: number,
): SingleCommand[] {
  return reshaping.parts.map(({ shot, start, windows }) => {
    const aspect = windowAspect(shot, picture, version);
    const area = activeArea(shot, picture);
    const kept = (window: CropWindow) => clampWindow(window, area, aspect);
    const way = reshaped(reshaping, windows, fps).map(kept);
    const tolerance = (reshaping.tolerance / 100) * Math.max(...way.map(({ height }) => height * aspect));
    const keys = keysThrough(way, start, shot.pane, tolerance).map((key) => ({ ...key, ...kept(key) }));
    return {
      type: "replace-keys",
      versionId: version.id,
      pane: shot.pane,
      range: { start, end: start + windows.length },
      keys,
      how: reshaping.how,
    };
  });
}
