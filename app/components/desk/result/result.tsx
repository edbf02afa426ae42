import { useCallback, useEffect, useRef, useState } from "react";
import { windowBox } from "~/core/geometry/crop-window";
import { useDesk } from "../state/desk-context";
import { useOnFrame } from "../picture/use-player";
import { useSize } from "../../common/use-size";

/** What the version shows at the frame on screen, in its true shape. */
export function Result() {
  const { player, video, film, version, aspect, windowAt } = useDesk();
  const { picture } = film;
  const [room, setRoom] = useState<HTMLDivElement | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const available = useSize(room);
  const height = Math.floor(Math.min(available.height, available.width / aspect));
  const width = Math.floor(height * aspect);

  const draw = useCallback(
    (frame: number) => {
      const context = canvas.current?.getContext("2d");
      if (!context || !video || video.readyState < HTMLMediaElement.HAVE_CURRENT_DATA) return;
      // What is played may have fewer pixels than the source that windows are measured in.
      const scale = video.videoWidth / picture.width;
      const box = windowBox(windowAt(frame), aspect);
      context.imageSmoothingQuality = "high";
      context.drawImage(
        video,
        ...([box.x * scale, box.y * scale, box.width * scale, box.height * scale] as const),
        ...([0, 0, context.canvas.width, context.canvas.height] as const),
      );
    },
    [video, picture, windowAt, aspect],
  );
  useOnFrame(player, draw);
  useEffect(() => draw(player?.getFrame() ?? 0), [draw, player, width, height]);

  const density = typeof window === "undefined" ? 1 : window.devicePixelRatio;
  return (
    <div ref={setRoom} className="flex size-full items-center justify-center overflow-hidden">
      <canvas
        ref={canvas}
        width={Math.max(1, Math.round(width * density))}
        height={Math.max(1, Math.round(height * density))}
        style={{ width, height }}
        role="img"
        aria-label={`What "${version.name}" shows`}
        className="bg-black"
      />
    </div>
  );
}
