import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { clamped } from "~/core/numbers/clamped";
import type { Layout } from "~/core/composition/layout";
import { arrowDirection } from "../../../common/arrow-step";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";

/** Share of the way per press of an arrow key. */
const NUDGE = 0.02;
/** Snapping distance. */
const SNAP_REACH = 0.025;

interface LayoutDrag {
  shot: DeskShot;
  /** Its place, 0 to 1. */
  value: number;
  axis: "x" | "y";
  /** Pixels of the screen for the whole way. */
  room: number;
  /** Snapping places, unless Shift is held. */
  snaps: readonly number[];
  layoutAt: (value: number) => Layout;
}

/** Moves part of a shot's layout on the result, by pointer or arrow keys; Escape gives a drag up. */
export function useLayoutDrag({ shot, value, axis, room, snaps, layoutAt }: LayoutDrag) {
  const { version, edits, shotCommands } = useDesk("version", "edits", "shotCommands");
  const [dragged, setDragged] = useState<number | null>(null);
  const grip = useRef<{ at: number; value: number } | null>(null);
  const put = (to: number) => shotCommands.setFraming([shot], { layout: layoutAt(to) });
  const leave = () => {
    grip.current = null;
    setDragged(null);
  };
  const giveUp = () => {
    leave();
    edits.preview(null);
  };
  const along = (event: PointerEvent) => (axis === "x" ? event.clientX : event.clientY);
  const handlers = {
    onPointerDown: (event: PointerEvent<HTMLElement>) => {
      if (event.button !== 0) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      grip.current = { at: along(event), value };
    },
    onPointerMove: (event: PointerEvent) => {
      if (!grip.current) return;
      const wanted = clamped(grip.current.value + (along(event) - grip.current.at) / room, 0, 1);
      const near = event.shiftKey ? undefined : snaps.find((snap) => Math.abs(snap - wanted) < SNAP_REACH);
      const to = near ?? wanted;
      setDragged(to);
      const change = { layout: layoutAt(to) };
      edits.preview({ type: "set-framing", versionId: version.id, shotIds: [shot.id], change });
    },
    onPointerUp: () => {
      // By then, the preview is what is shown.
      if (dragged !== null && dragged !== grip.current?.value) {
        put(dragged);
        leave();
      } else giveUp();
    },
    onPointerCancel: giveUp,
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === "Escape" && grip.current) giveUp();
      const by = arrowDirection(event.key);
      if (!by) return;
      event.preventDefault();
      event.stopPropagation();
      put(clamped(value + NUDGE * by[axis === "x" ? 0 : 1], 0, 1));
    },
  };
  return { value: dragged ?? value, handlers };
}
