import { clsx } from "clsx";
import {
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
  type RefObject,
  useCallback,
  useEffect,
  useRef,
  useState,
} from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { arrowDirection } from "~/components/common/arrow-step";
import { USUAL_SAFE_AREA } from "~/core/composition/layers/safe-area";
import { boxArea, boxContains } from "~/core/geometry/box";
import { clampWindow, type CropWindow, windowBox } from "~/core/geometry/crop-window";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import type { CastMember } from "~/core/subjects/choosing/cast";
import { boxAt } from "~/core/subjects/tracking/track";
import { useDesk } from "../../hooks/use-desk";
import { shotAt, subjectBoxAt } from "../../model/desk-types";
import { areaAt, windowAspect } from "../../model/windows";
import { sourcePoint, sourceScale } from "./source-point";
import { useOnFrame, useShotHere } from "../../hooks/use-player";
import { type Dragged, draggedWindow, type Snap, snapsOf } from "./window-drag";
import { eyeLineIn, guidesIn, safeAreaIn, trailOf } from "./window-overlays";
import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.cropWindowControl;

/** Source pixels per press of an arrow key, alone and with Shift. */
const NUDGE = 1;
const WIDE_NUDGE = 10;
/** Pixels of the screen within which the window snaps. */
const SNAP_PX = 6;
const THIN = "pointer-events-none fill-none [vector-effect:non-scaling-stroke]";

interface Grip {
  x: number;
  y: number;
  from: CropWindow;
  snaps: readonly Snap[];
}

interface CropWindowControlProps {
  svg: RefObject<SVGSVGElement | null>;
  /** What lies above the shaded picture and below the window. */
  children?: ReactNode;
}

/** The crop window on the picture: dragged, nudged with arrow keys, and drawn on the exact frame with its overlays. */
export function CropWindowControl({ svg, children }: CropWindowControlProps) {
  const { film, player, version, shots, windowAt, keyCommands, shotCommands, pictureLook } = useDesk(
    "film",
    "player",
    "version",
    "shots",
    "windowAt",
    "keyCommands",
    "shotCommands",
    "pictureLook",
  );
  const { picture } = film;
  const frameRect = useRef<SVGRectElement>(null);
  const shade = useRef<SVGPathElement>(null);
  const guideLines = useRef<SVGPathElement>(null);
  const eyeLine = useRef<SVGPathElement>(null);
  const safeArea = useRef<SVGPathElement>(null);
  const [dragged, setDragged] = useState<Dragged | null>(null);
  const grip = useRef<Grip | null>(null);
  const { guides, shade: darkness, safeArea: showsSafeArea, trail } = pictureLook;

  const aspectAt = useCallback(
    (frame: number) => windowAspect(shotAt(shots, frame), picture, version),
    [shots, picture, version],
  );
  const draw = useCallback(
    (window: CropWindow, frame: number) => {
      const box = windowBox(window, aspectAt(frame));
      const { x, y, width, height } = box;
      for (const [name, value] of Object.entries(box)) frameRect.current?.setAttribute(name, String(value));
      const whole = `M0 0H${picture.width}V${picture.height}H0Z`;
      shade.current?.setAttribute("d", `${whole}M${x} ${y}h${width}v${height}h${-width}Z`);
      guideLines.current?.setAttribute("d", guidesIn(box));
      const settings = shotAt(shots, frame)?.settings ?? USUAL_FRAMING;
      eyeLine.current?.setAttribute("d", eyeLineIn(box, settings.eyeLine / 100));
      const fills = settings.layout.kind === "fill";
      safeArea.current?.setAttribute("d", fills ? safeAreaIn(box, version.safeArea ?? USUAL_SAFE_AREA) : "");
    },
    [aspectAt, picture, shots, version.safeArea],
  );
  useOnFrame(
    player,
    useCallback((frame: number) => draw(dragged?.drawn ?? windowAt(frame), frame), [draw, dragged, windowAt]),
  );
  useEffect(() => {
    const frame = player?.getFrame() ?? 0;
    draw(dragged?.drawn ?? windowAt(frame), frame);
  }, [draw, dragged, windowAt, player, guides, showsSafeArea]);

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
  return (
    <>
      <path ref={shade} fillRule="evenodd" className="fill-black" fillOpacity={darkness / 100} />
      {children}
      {trail && <Trail />}
      <rect
        ref={frameRect}
        role="application"
        tabIndex={0}
        aria-roledescription={t.movableWindow}
        aria-label={t.windowLabel}
        className={clsx(
          "fill-transparent [vector-effect:non-scaling-stroke] focus:outline-none focus-visible:[stroke-width:4]",
          dragged?.isAtLimit ? "stroke-warn" : "stroke-accent",
          dragged ? "cursor-grabbing" : "cursor-grab",
        )}
        strokeWidth={2}
        onPointerDown={begin}
        onPointerMove={move}
        onPointerUp={end}
        onPointerCancel={giveUp}
        onKeyDown={nudge}
      />
      {guides && (
        <>
          <path ref={guideLines} className={clsx(THIN, "stroke-white/60")} strokeWidth={1} />
          <path ref={eyeLine} className={clsx(THIN, "stroke-white")} strokeWidth={1} strokeDasharray="2 5" />
        </>
      )}
      {showsSafeArea && (
        <path ref={safeArea} className={clsx(THIN, "stroke-white/70")} strokeWidth={1} strokeDasharray="6 4" />
      )}
      {dragged?.snapped.map(({ axis, at }) => (
        <path
          key={axis}
          d={axis === "x" ? `M${at} 0V${picture.height}` : `M0 ${at}H${picture.width}`}
          className={clsx(THIN, "stroke-accent")}
          strokeWidth={1}
          strokeDasharray="4 4"
        />
      ))}
    </>
  );
}

/** The path of the window's centre over the shot on screen. */
function Trail() {
  const { player, shots } = useDesk("player", "shots");
  const shot = useShotHere(player, shots);
  return (
    shot && <path d={trailOf(shot)} aria-label={t.trail} className={clsx(THIN, "stroke-accent")} strokeWidth={2} />
  );
}
