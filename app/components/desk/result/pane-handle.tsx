import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { type Layout, paneBox } from "~/core/composition/layout";
import type { Box, Size } from "~/core/geometry/box";
import { activeArea } from "~/core/shots/shot";
import { arrowDirection } from "../../common/arrow-step";
import { useDesk } from "../state/desk-context";
import type { DeskShot } from "../state/desk-types";

/** Shares of the free room that the pane moves by with an arrow key, and where it snaps to while it is dragged. */
const NUDGE = 0.02;
const SNAPS = [0, 1 / 3, 0.5, 2 / 3, 1];
const SNAP_REACH = 0.025;

type Whole = Extract<Layout, { kind: "whole" }>;

const clamped = (place: number) => Math.min(1, Math.max(0, place));
const snapped = (place: number) => SNAPS.find((snap) => Math.abs(snap - place) < SNAP_REACH) ?? place;

/** Moves a picture that does not fill its frame to another place in it, on the result itself. */
export function PaneHandle({ shot, size }: { shot: DeskShot; size: Size }) {
  const { layout } = shot.settings;
  return layout.kind === "whole" ? <Handle shot={shot} layout={layout} size={size} /> : null;
}

interface HandleProps {
  shot: DeskShot;
  layout: Whole;
  /** Size of the result on the screen. */
  size: Size;
}

function Handle({ shot, layout, size }: HandleProps) {
  const { film, version, edits, shotEdits } = useDesk();
  const [dragged, setDragged] = useState<number | null>(null);
  const grip = useRef<{ x: number; y: number; place: number } | null>(null);
  const area = activeArea(shot, film.picture);
  const place = dragged ?? layout.place;
  const pane = paneBox({ ...layout, place }, area, version);
  const free = { x: version.width - pane.width, y: version.height - pane.height };
  const put = (value: number) => shotEdits.setFraming([shot], { layout: { ...layout, place: value } });
  const show = (value: number) => {
    setDragged(value);
    const change = { layout: { ...layout, place: value } };
    edits.preview({ type: "set-framing", versionId: version.id, shotIds: [shot.id], change });
  };
  const leave = () => {
    grip.current = null;
    setDragged(null);
  };
  const giveUp = () => {
    leave();
    edits.preview(null);
  };
  const begin = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    grip.current = { x: event.clientX, y: event.clientY, place: layout.place };
  };
  const move = (event: PointerEvent) => {
    if (!grip.current) return;
    const scale = version.width / size.width;
    const { x, y, place: from } = grip.current;
    const by = free.y >= free.x ? (event.clientY - y) / free.y : (event.clientX - x) / free.x;
    const wanted = clamped(from + by * scale);
    show(event.shiftKey ? wanted : snapped(wanted));
  };
  const end = () => {
    // What is shown by then is the preview.
    if (dragged !== null && dragged !== grip.current?.place) {
      put(dragged);
      leave();
    } else giveUp();
  };
  const nudge = (event: KeyboardEvent) => {
    if (event.key === "Escape" && grip.current) giveUp();
    const by = arrowDirection(event.key);
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    put(clamped(layout.place + NUDGE * by[free.y >= free.x ? 1 : 0]));
  };
  const share = (box: Box) => ({
    left: `${(100 * box.x) / version.width}%`,
    top: `${(100 * box.y) / version.height}%`,
    width: `${(100 * box.width) / version.width}%`,
    height: `${(100 * box.height) / version.height}%`,
  });
  return (
    <div className="pointer-events-none absolute" style={size}>
      <button
        type="button"
        aria-roledescription="movable picture"
        aria-label={`Picture in the frame, ${Math.round(100 * place)} % of the way`}
        title="Drag to place it; hold Shift to place it freely"
        className="pointer-events-auto absolute cursor-move touch-none border border-transparent hover:border-white/70 focus-visible:border-accent"
        style={share(pane)}
        onPointerDown={begin}
        onPointerMove={move}
        onPointerUp={end}
        onPointerCancel={giveUp}
        onKeyDown={nudge}
      />
    </div>
  );
}
