import { clsx } from "clsx";
import { type KeyboardEvent, type PointerEvent, useCallback, useEffect, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { assertNever } from "~/core/assert-never";
import { arrowDirection } from "~/components/common/arrow-step";
import type { Box, Point, Size } from "~/core/geometry/box";
import { clampWindow, type CropWindow, windowBox } from "~/core/geometry/crop-window";
import { boxAt, laidOver } from "~/core/subjects/tracking/track";
import { wholePixels } from "../inspector/active-area";
import { useDesk } from "../state/desk-context";
import { type DeskShot, shotAt } from "../state/desk-types";
import { areaAt, windowAspect } from "./desk-windows";
import { type Drawing, DRAWING_LABEL } from "./drawing";
import { MarkLayer } from "./mark-layer";
import type { Player } from "./player";
import { OtherPanes } from "./other-panes";
import { PictureSubjects } from "./picture-subjects";
import { useFrame, useOnFrame, useShotHere } from "./use-player";

export interface PictureProps {
  videoRef: (video: HTMLVideoElement | null) => void;
  /** Why the picture cannot be seen for the moment; null while it can. */
  notice: string | null;
}

/** Source pixels that one press of an arrow key moves the window by, alone and with Shift. */
const NUDGE = 1;
const WIDE_NUDGE = 10;

/** Lines at the thirds of a window, and a cross in its middle. */
function guidesIn({ x, y, width, height }: Box): string {
  const thirds = [1 / 3, 2 / 3].map(
    (share) => `M${x + share * width} ${y}v${height}M${x} ${y + share * height}h${width}`,
  );
  const arm = 0.03 * Math.min(width, height);
  const [middleX, middleY] = [x + width / 2, y + height / 2];
  return `${thirds.join("")}M${middleX - arm} ${middleY}h${2 * arm}M${middleX} ${middleY - arm}v${2 * arm}`;
}

/** The whole picture with the crop window on it; what falls outside is shaded. */
export function Picture({ videoRef, notice }: PictureProps) {
  const { film, player, version, shots, windowAt, keyEdits, showsSubjects, showsGuides, drawing } = useDesk();
  const { picture } = film;
  const svg = useRef<SVGSVGElement>(null);
  const frameRect = useRef<SVGRectElement>(null);
  const shade = useRef<SVGPathElement>(null);
  const guideLines = useRef<SVGPathElement>(null);
  const [dragged, setDragged] = useState<CropWindow | null>(null);
  const grip = useRef<{ x: number; y: number; from: CropWindow } | null>(null);

  const aspectAt = useCallback(
    (frame: number) => windowAspect(shotAt(shots, frame), picture, version),
    [shots, picture, version],
  );
  const draw = useCallback(
    (window: CropWindow, frame: number) => {
      const { x, y, width, height } = windowBox(window, aspectAt(frame));
      for (const [name, value] of Object.entries({ x, y, width, height }))
        frameRect.current?.setAttribute(name, String(value));
      const whole = `M0 0H${picture.width}V${picture.height}H0Z`;
      guideLines.current?.setAttribute("d", guidesIn({ x, y, width, height }));
      shade.current?.setAttribute("d", `${whole}M${x} ${y}h${width}v${height}h${-width}Z`);
    },
    [aspectAt, picture],
  );
  useOnFrame(
    player,
    useCallback((frame: number) => draw(dragged ?? windowAt(frame), frame), [draw, dragged, windowAt]),
  );
  useEffect(() => {
    const frame = player?.getFrame() ?? 0;
    draw(dragged ?? windowAt(frame), frame);
  }, [draw, dragged, windowAt, player, showsGuides]);

  /** A pointer's place in source pixels. */
  const locate = (event: PointerEvent) => {
    const bounds = svg.current!.getBoundingClientRect();
    const scale = picture.width / bounds.width;
    return { x: (event.clientX - bounds.left) * scale, y: (event.clientY - bounds.top) * scale };
  };
  const begin = (event: PointerEvent<SVGRectElement>) => {
    if (event.button !== 0 || !player) return;
    player.pause();
    event.currentTarget.setPointerCapture(event.pointerId);
    grip.current = { ...locate(event), from: windowAt(player.getFrame()) };
  };
  const move = (event: PointerEvent) => {
    if (!grip.current || !player) return;
    const { from, ...start } = grip.current;
    const here = locate(event);
    const by = { x: here.x - start.x, y: here.y - start.y };
    // With Shift it moves along one axis: the one that it has been moved along further.
    if (event.shiftKey) by[Math.abs(by.x) < Math.abs(by.y) ? "x" : "y"] = 0;
    const moved = { x: from.x + by.x, y: from.y + by.y, height: from.height };
    const frame = player.getFrame();
    const window = clampWindow(moved, areaAt(shots, frame, picture), aspectAt(frame));
    setDragged(window);
    keyEdits.preview(frame, window);
  };
  const end = () => {
    if (dragged && player) keyEdits.place(player.getFrame(), dragged);
    grip.current = null;
    setDragged(null);
  };
  const giveUp = () => {
    grip.current = null;
    setDragged(null);
    keyEdits.preview(0, null);
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
    const { x, y, height } = windowAt(frame);
    const moved = { x: x + step * by[0], y: y + step * by[1], height };
    keyEdits.place(frame, clampWindow(moved, areaAt(shots, frame, picture), aspectAt(frame)));
  };

  return (
    <div className="relative size-full bg-black">
      <video
        ref={videoRef}
        preload="auto"
        playsInline
        aria-label="The whole picture"
        className="absolute inset-0 size-full"
      />
      <svg
        ref={svg}
        viewBox={`0 0 ${picture.width} ${picture.height}`}
        className="absolute inset-0 size-full touch-none overflow-visible"
      >
        <path ref={shade} fillRule="evenodd" className="fill-black/55" />
        {(showsSubjects || drawing === "mark") && <PictureSubjects />}
        <rect
          ref={frameRect}
          role="application"
          tabIndex={0}
          aria-roledescription="movable window"
          aria-label="Crop window: drag it, or move it with the arrow keys"
          className={clsx(
            "fill-transparent stroke-accent [vector-effect:non-scaling-stroke] focus:outline-none focus-visible:[stroke-width:4]",
            dragged ? "cursor-grabbing" : "cursor-grab",
          )}
          strokeWidth={2}
          onPointerDown={begin}
          onPointerMove={move}
          onPointerUp={end}
          onPointerCancel={giveUp}
          onKeyDown={nudge}
        />
        {showsGuides && (
          <path
            ref={guideLines}
            pointerEvents="none"
            className="fill-none stroke-white/60 [vector-effect:non-scaling-stroke]"
            strokeWidth={1}
          />
        )}
        <OtherPanes />
        <Bars player={player} shots={shots} picture={picture} />
        <ProtectedPart player={player} shots={shots} />
        <TextHere player={player} shots={shots} />
        {drawing && player && <DrawingLayer drawing={drawing} player={player} />}
      </svg>
      {notice && (
        <p
          role="status"
          className="pointer-events-none absolute inset-x-0 top-1/2 mx-auto w-fit max-w-[90%] -translate-y-1/2 rounded bg-black/75 px-3 py-1.5 text-sm text-white"
        >
          {notice}
        </p>
      )}
    </div>
  );
}

/** A box is drawn around what to follow, what to keep inside, or the picture without its bars; or a place is clicked. */
function DrawingLayer({ drawing, player }: { drawing: Drawing; player: Player }) {
  const { film, version, shots, windowAt, keyEdits, shotEdits, subjectEdits, setDrawing } = useDesk();
  const centre = (place: Point) => {
    setDrawing(null);
    const frame = player.getFrame();
    const aspect = windowAspect(shotAt(shots, frame), film.picture, version);
    const { height } = windowAt(frame);
    keyEdits.place(frame, clampWindow({ ...place, height }, areaAt(shots, frame, film.picture), aspect));
  };
  const drawn = (box: Box | null) => {
    setDrawing(null);
    const frame = player.getFrame();
    const shot = shotAt(shots, frame);
    if (!box || !shot) return;
    switch (drawing) {
      case "mark":
        return subjectEdits.mark(frame, box);
      case "protect":
        return shotEdits.protect(shot, box);
      case "active":
        return shotEdits.change([shot], { active: wholePixels(box) });
      case "centre":
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
      {...(drawing === "centre" ? { onClicked: centre } : {})}
    />
  );
}

/** The film's own bars in the shot on screen: no window shows them. */
function Bars({ player, shots, picture }: { player: Player | null; shots: DeskShot[]; picture: Size }) {
  const active = useShotHere(player, shots)?.active;
  if (!active) return null;
  const { x, y, width, height } = active;
  return (
    <g pointerEvents="none" aria-label="The film's own bars">
      <path
        fillRule="evenodd"
        d={`M0 0H${picture.width}V${picture.height}H0ZM${x} ${y}h${width}v${height}h${-width}Z`}
        className="fill-white/15"
      />
      <rect
        {...active}
        className="fill-none stroke-white/70 [vector-effect:non-scaling-stroke]"
        strokeWidth={1}
        strokeDasharray="1 3"
      />
    </g>
  );
}

/** The part of the picture that is protected in the shot on screen. */
function ProtectedPart({ player, shots }: { player: Player | null; shots: DeskShot[] }) {
  const part = useShotHere(player, shots)?.protect;
  return part && <KeptPart part={part} />;
}

/** The text over the frame on screen. */
function TextHere({ player, shots }: { player: Player | null; shots: DeskShot[] }) {
  const frame = useFrame(player);
  return laidOver(shotAt(shots, frame)?.tracks ?? []).map((track) => {
    const part = boxAt(track, frame);
    return part && <KeptPart key={track.id} part={part} />;
  });
}

/** A part of the picture that the window keeps inside where it can. */
function KeptPart({ part }: { part: Box }) {
  return (
    <rect
      {...part}
      pointerEvents="none"
      className="fill-none stroke-white [vector-effect:non-scaling-stroke]"
      strokeWidth={1.5}
      strokeDasharray="3 4"
    />
  );
}
