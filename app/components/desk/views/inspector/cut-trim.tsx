import { clamped } from "~/core/numbers/clamped";
import { clsx } from "clsx";
import { ChevronLeft, ChevronRight, ChevronsLeft, ChevronsRight } from "lucide-react";
import { type Ref, useEffect, useRef } from "react";
import { IconButton } from "~/components/common/button";
import { cutOut } from "~/core/composition/composition";
import { type Size, wholeOf } from "~/core/geometry/box";
import { type Clock, timecodeAt } from "~/core/time/timecode";
import { FrameGrabber } from "../../frames/frame-grabber";
import type { LightCopy } from "../../model/piece-stream";
import { useShortcutText } from "../../hooks/use-shortcut-keys";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.cutTrim;

interface CutTrimProps {
  source: LightCopy;
  picture: Size;
  clock: Clock;
  /** First frame after the cut. */
  frame: number;
  /** Frames at which the cut can be, inclusive. */
  reach: { from: number; to: number };
  onMove: (frame: number) => void;
}

/** The last frame before a cut beside the first one after it, and buttons that move the cut. */
export function CutTrim({ source, picture, clock, frame, reach, onMove }: CutTrimProps) {
  const keysOf = useShortcutText();
  const before = useRef<HTMLCanvasElement>(null);
  const after = useRef<HTMLCanvasElement>(null);
  const grabber = useRef<FrameGrabber | null>(null);
  const { width, height } = picture;

  useEffect(() => {
    const created = new FrameGrabber(source);
    grabber.current = created;
    return () => created.dispose();
  }, [source]);
  useEffect(() => {
    const whole = cutOut(wholeOf({ width, height }));
    let newer = false;
    const draw = async () => {
      for (const [canvas, shown] of [[before, frame - 1] as const, [after, frame] as const]) {
        if (newer || !canvas.current || !grabber.current) return;
        await grabber.current.draw(shown, canvas.current, { width, height }, whole);
      }
    };
    draw().catch(() => {
      // The panel was closed while a frame was on its way.
    });
    return () => void (newer = true);
  }, [frame, width, height, source]);

  const move = (by: number) => onMove(clamped(frame + by, reach.from, reach.to));
  const icon = "size-4";
  return (
    <div className="mt-2">
      <div className="grid grid-cols-2 gap-px bg-line">
        <Shown canvas={before} picture={picture} caption={t.lastBefore} />
        <Shown canvas={after} picture={picture} caption={t.firstAfter} className="text-right" />
      </div>
      <div className="flex items-center justify-between">
        <span>
          <IconButton label={t.tenFramesEarlier} disabled={frame <= reach.from} onClick={() => move(-10)}>
            <ChevronsLeft className={icon} aria-hidden />
          </IconButton>
          <IconButton
            label={t.oneFrameEarlier}
            shortcut={keysOf("cut-earlier")}
            disabled={frame <= reach.from}
            onClick={() => move(-1)}
          >
            <ChevronLeft className={icon} aria-hidden />
          </IconButton>
        </span>
        <span className="font-mono text-xs">{timecodeAt(frame, clock)}</span>
        <span>
          <IconButton
            label={t.oneFrameLater}
            shortcut={keysOf("cut-later")}
            disabled={frame >= reach.to}
            onClick={() => move(1)}
          >
            <ChevronRight className={icon} aria-hidden />
          </IconButton>
          <IconButton label={t.tenFramesLater} disabled={frame >= reach.to} onClick={() => move(10)}>
            <ChevronsRight className={icon} aria-hidden />
          </IconButton>
        </span>
      </div>
    </div>
  );
}

/** Width in pixels of each frame. */
const SHOWN_WIDTH = 256;

interface ShownProps {
  canvas: Ref<HTMLCanvasElement>;
  picture: Size;
  caption: string;
  className?: string;
}

/** One frame with its caption. */
function Shown({ canvas, picture: { width, height }, caption, className }: ShownProps) {
  return (
    <figure className="bg-panel">
      <canvas
        ref={canvas}
        width={SHOWN_WIDTH}
        height={Math.round((SHOWN_WIDTH * height) / width)}
        style={{ aspectRatio: `${width} / ${height}` }}
        className="w-full bg-well"
      />
      <figcaption className={clsx("pt-1 text-xs text-soft", className)}>{caption}</figcaption>
    </figure>
  );
}
