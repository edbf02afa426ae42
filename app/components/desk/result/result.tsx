import { lazy, Suspense, useCallback, useEffect, useRef, useState } from "react";
import { assertNever } from "~/core/assert-never";
import { groundOf } from "~/core/composition/layers/draw-layer";
import { isSilent } from "~/core/composition/stack";
import { safeBox } from "~/core/composition/layers/safe-area";
import type { Size } from "~/core/geometry/box";
import type { DeskShot } from "../state/desk-types";
import { useDesk } from "../state/desk-context";
import { drawComposition } from "../picture/draw-composition";
import { firstFrame, MovingPictures, type PictureSource } from "../picture/moving-pictures";
import { useArrivedPictures } from "../picture/own-pictures";
import { useOnFrame, useShotHere } from "../picture/use-player";
import { PaneHandle } from "./pane-handle";
import { shareOf } from "./share-of";
import { StackHandles } from "./stack-handles";
import { useLatest } from "../../common/use-latest";
import { useSize } from "../../common/use-size";

// The canvas library is for browsers only, and large.
const LayerStage = lazy(() => import("../layers/layer-stage"));

/** What the version shows at the frame on screen, in its true shape. */
export function Result() {
  const { player, video, film, version, aspect, shots, shownAt, panel } = useDesk();
  const { picture } = film;
  const [room, setRoom] = useState<HTMLDivElement | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const moving = useRef<MovingPictures | null>(null);
  const available = useSize(room);
  const height = Math.floor(Math.min(available.height, available.width / aspect));
  const width = Math.floor(height * aspect);

  const draw = useCallback(
    (frame: number) => {
      if (!canvas.current || !video || video.readyState < HTMLMediaElement.HAVE_CURRENT_DATA) return;
      const to = canvas.current;
      const paint = (sourceOf: PictureSource) => drawComposition(to, video, shownAt(frame), picture, sourceOf);
      if (player) moving.current?.draw({ speed: player.getSpeed(), sound: player.getSound() }, paint);
      else paint(firstFrame);
    },
    [video, picture, shownAt, player],
  );
  const latest = useLatest(draw);
  useEffect(() => {
    const playing = new MovingPictures(() => latest.current(player?.getFrame() ?? 0));
    moving.current = playing;
    return () => playing.dispose();
  }, [player, latest]);
  useOnFrame(player, draw);
  const pictures = useArrivedPictures();
  useEffect(() => draw(player?.getFrame() ?? 0), [draw, player, width, height, pictures]);

  const shot = useShotHere(player, shots);
  const layout = shot?.settings.layout;
  const filmIsSilent = layout?.kind === "stack" && isSilent(layout);
  useEffect(() => player?.setShotSilent(filmIsSilent), [player, filmIsSilent]);
  const density = typeof window === "undefined" ? 1 : window.devicePixelRatio;
  return (
    <div ref={setRoom} className="relative flex size-full items-center justify-center overflow-hidden">
      <canvas
        ref={canvas}
        width={Math.max(1, Math.round(width * density))}
        height={Math.max(1, Math.round(height * density))}
        style={{ width, height }}
        role="img"
        aria-label={`What "${version.name}" shows`}
        className="bg-black"
      />
      {shot && (
        <div className="pointer-events-none absolute" style={{ width, height }}>
          {panel === "layers" ? (
            <Suspense>
              <SafeAreaOutline />
              <div className="pointer-events-auto absolute inset-0">
                <LayerStage size={{ width, height }} />
              </div>
            </Suspense>
          ) : (
            <Handles shot={shot} size={{ width, height }} />
          )}
        </div>
      )}
    </div>
  );
}

/** Where nothing covers the frame. */
function SafeAreaOutline() {
  const { version } = useDesk();
  const { frame, safe } = groundOf(version);
  const area = safeBox(safe, frame);
  return <div aria-hidden className="absolute border border-dashed border-white/60" style={shareOf(area, version)} />;
}

/** What of a shot's layout is moved on the result. */
function Handles({ shot, size }: { shot: DeskShot; size: Size }) {
  const { layout } = shot.settings;
  switch (layout.kind) {
    case "fill":
      return null;
    case "whole":
      return <PaneHandle shot={shot} layout={layout} size={size} />;
    case "stack":
      return <StackHandles shot={shot} stack={layout} size={size} />;
    default:
      return assertNever(layout);
  }
}
