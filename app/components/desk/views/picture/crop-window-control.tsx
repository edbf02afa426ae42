import { clsx } from "clsx";
import { type ReactNode, type RefObject, useCallback, useEffect, useRef } from "react";
import { USUAL_SAFE_AREA } from "~/core/composition/layers/safe-area";
import { type CropWindow, windowBox } from "~/core/geometry/crop-window";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import { pictureTexts } from "~/texts/picture";
import { useDesk } from "../../hooks/use-desk";
import { useOnFrame, useShotHere } from "../../hooks/use-player";
import { shotAt } from "../../model/desk-types";
import { useWindowDrag } from "./use-window-drag";
import { eyeLineIn, guidesIn, safeAreaIn, trailOf } from "./window-overlays";

const t = pictureTexts.cropWindowControl;

const THIN = "pointer-events-none fill-none [vector-effect:non-scaling-stroke]";

interface CropWindowControlProps {
  svg: RefObject<SVGSVGElement | null>;
  /** What lies above the shaded picture and below the window. */
  children?: ReactNode;
}

/** The crop window on the picture: dragged, nudged with arrow keys, and drawn on the exact frame with its overlays. */
export function CropWindowControl({ svg, children }: CropWindowControlProps) {
  const { film, player, version, shots, windowAt, aspectAt, pictureLook } = useDesk(
    "film",
    "player",
    "version",
    "shots",
    "windowAt",
    "aspectAt",
    "pictureLook",
  );
  const { dragged, handlers } = useWindowDrag(svg);
  const { picture } = film;
  const frameRect = useRef<SVGRectElement>(null);
  const shade = useRef<SVGPathElement>(null);
  const guideLines = useRef<SVGPathElement>(null);
  const eyeLine = useRef<SVGPathElement>(null);
  const safeArea = useRef<SVGPathElement>(null);
  const { guides, shade: darkness, safeArea: showsSafeArea, trail } = pictureLook;

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
        {...handlers}
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
