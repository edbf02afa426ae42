import { clsx } from "clsx";
import { useCallback, useEffect, useRef } from "react";
import type { ShownAt } from "~/core/composition/composition";
import type { Size } from "~/core/geometry/box";
import { useLatest } from "../../common/use-latest";
import { drawComposition } from "./draw-composition";
import { firstFrame, MovingPictures, type PictureSource } from "./moving-pictures";
import { useArrivedPictures } from "./own-pictures";
import { useOnFrame } from "../hooks/use-player";
import { useDesk } from "../hooks/use-desk";

interface ComposedCanvasProps {
  /** Label for screen readers. */
  label: string;
  shownAt: ShownAt;
  /** Size on the screen. */
  size: Size;
  /** Mutes the editor's own films in it, which are already heard elsewhere. */
  isSilent?: boolean;
  className?: string;
}

/** Shows the version at the frame on screen, drawn in the callback in which the browser presents that frame. */
export function ComposedCanvas({ label, shownAt, size, isSilent = false, className }: ComposedCanvasProps) {
  const { player, video, film } = useDesk("player", "video", "film");
  const { picture } = film;
  const { width, height } = size;
  const canvas = useRef<HTMLCanvasElement>(null);
  const moving = useRef<MovingPictures | null>(null);

  const draw = useCallback(
    (frame: number) => {
      if (!canvas.current || !video || video.readyState < HTMLMediaElement.HAVE_CURRENT_DATA) return;
      const to = canvas.current;
      const paint = (sourceOf: PictureSource) => drawComposition(to, video, shownAt(frame), picture, sourceOf);
      if (!player) return paint(firstFrame);
      const sound = player.getSound();
      moving.current?.draw({ speed: player.getSpeed(), sound: isSilent ? { ...sound, muted: true } : sound }, paint);
    },
    [video, picture, shownAt, player, isSilent],
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

  const density = typeof window === "undefined" ? 1 : window.devicePixelRatio;
  return (
    <canvas
      ref={canvas}
      width={Math.max(1, Math.round(width * density))}
      height={Math.max(1, Math.round(height * density))}
      style={{ width, height }}
      role="img"
      aria-label={label}
      className={clsx("bg-black", className)}
    />
  );
}
