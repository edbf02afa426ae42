import { Hint } from "~/components/common/button";
import { type Layout, paneBox } from "~/core/composition/layout";
import type { Size } from "~/core/geometry/box";
import { activeArea } from "~/core/shots/shot";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { shareOf } from "./share-of";
import { useLayoutDrag } from "./use-layout-drag";
import { resultTexts } from "~/texts/result";

const t = resultTexts.paneHandle;

const SNAPS = [0, 1 / 3, 0.5, 2 / 3, 1];

interface PaneHandleProps {
  shot: DeskShot;
  layout: Extract<Layout, { kind: "whole" }>;
  /** Size of the result on the screen. */
  size: Size;
}

/** Moves a picture that does not fill its frame, on the result itself. */
export function PaneHandle({ shot, layout, size }: PaneHandleProps) {
  const { film, version } = useDesk("film", "version");
  const area = activeArea(shot, film.picture);
  const pane = paneBox(layout, area, version);
  const free = { x: version.width - pane.width, y: version.height - pane.height };
  const axis = free.y >= free.x ? "y" : "x";
  const { value, handlers } = useLayoutDrag({
    shot,
    axis,
    snaps: SNAPS,
    value: layout.place,
    room: (free[axis] * size.width) / version.width,
    layoutAt: (place) => ({ ...layout, place }),
  });
  const ends = axis === "y" ? t.topToBottom : t.leftToRight;
  return (
    <Hint text={t.dragToPlaceThePicture}>
      <button
        type="button"
        aria-roledescription={t.movablePicture}
        aria-label={t.placeOfThePicture(value, ends)}
        className="pointer-events-auto absolute cursor-move touch-none border border-transparent hover:border-white/70 focus-visible:border-accent"
        style={shareOf(paneBox({ ...layout, place: value }, area, version), version)}
        {...handlers}
      />
    </Hint>
  );
}
