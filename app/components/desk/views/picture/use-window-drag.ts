import { type KeyboardEvent, type PointerEvent, type RefObject, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { arrowDirection } from "~/components/common/arrow-step";
import { boxArea, boxContains } from "~/core/geometry/box";
import { clampWindow, type CropWindow } from "~/core/geometry/crop-window";
import type { CastMember } from "~/core/subjects/choosing/cast";
import { boxAt } from "~/core/subjects/tracking/track";
import { useDesk } from "../../hooks/use-desk";
import { shotAt, subjectBoxAt } from "../../model/desk-types";
import { areaAt } from "../../model/windows";
import { sourcePoint, sourceScale } from "./source-point";
import { type Dragged, draggedWindow, type Snap, snapsOf } from "./window-drag";

/** Source pixels per press of an arrow key, alone and with Shift. */
const NUDGE = 1;
const WIDE_NUDGE = 10;
/** Pixels of the screen within which the window snaps. */
const SNAP_PX = 6;

interface Grip {
  x: number;
  y: number;
  from: CropWindow;
  snaps: readonly Snap[];
}

/** Moves the crop window by pointer and arrow keys; a click that moves nothing follows who is under the window. */
export function useWindowDrag(svg: RefObject<SVGSVGElement | null>) {
  const { film, player, shots, windowAt, aspectAt, keyCommands, shotCommands, pictureLook } = useDesk(
    "film",
    "player",
    "shots",
    "windowAt",
    "aspectAt",
    "keyCommands",
    "shotCommands",
    "pictureLook",
  );
  const { picture } = film;
  const [dragged, setDragged] = useState<Dragged | null>(null);
  const grip = useRef<Grip | null>(null);

  /** Source pixels per pixel of the screen. */
  const scale = () => sourceScale(svg.current!, picture);
  const begin = (event: PointerEvent<SVGRectElement>) => {
    if (event.button !== 0 || !player) return;
    player.pause();
    event.currentTarget.setPointerCapture(event.pointerId);
    const frame = player.getFrame();
    const from = windowAt(frame);
    const snaps = snapsOf(
      subjectBoxAt(shotAt(shots, frame), frame),
      from,
      areaAt(shots, frame, picture),
      aspectAt(frame),
    );
    grip.current = { x: event.clientX, y: event.clientY, from, snaps };
  };
  const move = (event: PointerEvent) => {
    if (!grip.current || !player) return;
    const { from, snaps, x, y } = grip.current;
    const frame = player.getFrame();
    const next = draggedWindow({
      from,
      by: { x: (event.clientX - x) * scale(), y: (event.clientY - y) * scale() },
      isHeld: event.shiftKey,
      snaps: event.ctrlKey || event.metaKey ? [] : snaps,
      reach: SNAP_PX * scale(),
      area: areaAt(shots, frame, picture),
      aspect: aspectAt(frame),
    });
    setDragged(next);
    keyCommands.preview(frame, next.window);
  };
  const giveUp = () => {
    grip.current = null;
    setDragged(null);
    keyCommands.preview(0, null);
  };
  /** The window covers people below it: a click on it selects them. */
  const followUnder = (event: PointerEvent) => {
    const place = sourcePoint(event, svg.current!, picture);
    const frame = player?.getFrame() ?? 0;
    const shot = shotAt(shots, frame);
    const under = shot?.cast.filter(({ track }) => {
      const box = boxAt(track, frame);
      return box && boxContains(box, { ...place, width: 0, height: 0 });
    });
    // Of several, the front one, which is the smallest.
    const area = ({ track }: CastMember) => boxArea(boxAt(track, frame)!);
    const front = under?.sort((a, b) => area(a) - area(b))[0];
    if (shot && front) shotCommands.follow([shot], { kind: "track", trackId: front.track.id });
  };
  const end = (event: PointerEvent) => {
    const from = grip.current?.from;
    const to = dragged?.window;
    if (from && !dragged && pictureLook.subjects) followUnder(event);
    // A window that returned to its start has not moved and makes no key.
    if (!to || !from || !player || (to.x === from.x && to.y === from.y)) return giveUp();
    keyCommands.place(player.getFrame(), to);
    grip.current = null;
    setDragged(null);
  };
  useHotkeys("escape", giveUp, { enabled: dragged !== null });
  const nudge = (event: KeyboardEvent) => {
    const step = event.shiftKey ? WIDE_NUDGE : NUDGE;
    const by = arrowDirection(event.key);
    if (!by || !player) return;
    event.preventDefault();
    event.stopPropagation();
    player.pause();
    const frame = player.getFrame();
    const from = windowAt(frame);
    const moved = { ...from, x: from.x + step * by[0], y: from.y + step * by[1] };
    const to = clampWindow(moved, areaAt(shots, frame, picture), aspectAt(frame));
    if (to.x !== from.x || to.y !== from.y) keyCommands.place(frame, to);
  };
  return {
    dragged,
    handlers: {
      onPointerDown: begin,
      onPointerMove: move,
      onPointerUp: end,
      onPointerCancel: giveUp,
      onKeyDown: nudge,
    },
  };
}
