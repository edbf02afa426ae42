import { assertNever } from "~/core/basics/assert-never";
import { clamped } from "~/core/numbers/clamped";
import type { Box, Point } from "~/core/geometry/box";
import { clampWindow } from "~/core/geometry/crop-window";
import { EYE_LINE_RANGE } from "~/core/path/framing-settings";
import { useDesk } from "../../hooks/use-desk";
import { shotAt } from "../../model/desk-types";
import { areaAt, wholePixels } from "../../model/windows";
import { type Drawing, DRAWING_LABEL } from "../../model/drawing";
import { MarkLayer } from "./mark-layer";
import type { Player } from "../../model/player";

interface DrawingLayerProps {
  drawing: Exclude<Drawing, "steer">;
  player: Player;
}

/** Draws a box around the thing to follow, the protected area, or the picture area; or takes a click. */
export function DrawingLayer({ drawing, player }: DrawingLayerProps) {
  const { film, shots, windowAt, aspectAt, keyCommands, shotCommands, subjectCommands, setDrawing } = useDesk(
    "film",
    "shots",
    "windowAt",
    "aspectAt",
    "keyCommands",
    "shotCommands",
    "subjectCommands",
    "setDrawing",
  );
  const centre = (place: Point) => {
    setDrawing(null);
    const frame = player.getFrame();
    const { height } = windowAt(frame);
    keyCommands.place(frame, clampWindow({ ...place, height }, areaAt(shots, frame, film.picture), aspectAt(frame)));
  };
  const setEyes = ({ y }: Point) => {
    setDrawing(null);
    const frame = player.getFrame();
    const shot = shotAt(shots, frame);
    const { y: middle, height } = windowAt(frame);
    const percent = Math.round(100 * ((y - middle) / height + 0.5));
    if (shot) shotCommands.setFraming([shot], { eyeLine: clamped(percent, EYE_LINE_RANGE.least, EYE_LINE_RANGE.most) });
  };
  const drawn = (box: Box | null) => {
    setDrawing(null);
    const frame = player.getFrame();
    const shot = shotAt(shots, frame);
    if (!box || !shot) return;
    switch (drawing) {
      case "mark":
        return subjectCommands.mark(frame, box);
      case "protect":
        return shotCommands.protect(shot, box);
      case "active":
        return shotCommands.change([shot], { active: wholePixels(box) });
      case "centre":
      case "eyes":
        return;
      default:
        return assertNever(drawing);
    }
  };
  return (
    <MarkLayer
      label={DRAWING_LABEL[drawing]}
      picture={film.picture}
      onStart={() => player.pause()}
      onDrawn={drawn}
      {...(drawing === "centre" ? { onClicked: centre } : drawing === "eyes" ? { onClicked: setEyes } : {})}
    />
  );
}
