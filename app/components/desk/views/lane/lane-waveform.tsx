import type Konva from "konva";
import { Shape } from "react-konva";
import type { Size } from "~/core/geometry/box";
import type { FrameRange } from "~/core/time/rate";
import { STRIP } from "./lane-strip";
import type { CanvasTheme } from "../../hooks/use-theme";

/** Canvas pixels across the waveform. */
export const WAVEFORM = 30;

interface LaneWaveformProps {
  /** How loud each frame is, 0 to 255. */
  waveform: Uint8Array;
  axis: "x" | "y";
  size: Size;
  pxPerFrame: number;
  drawn: FrameRange;
  theme: CanvasTheme;
}

/** The waveform along the lane: a line for each canvas pixel, as wide as the sound is loud. */
export function LaneWaveform({ waveform, axis, size, pxPerFrame, drawn, theme }: LaneWaveformProps) {
  const middle = (axis === "x" ? size.width : size.height) - STRIP - WAVEFORM / 2;
  const paint = (context: Konva.Context) => {
    const from = Math.max(0, Math.floor(drawn.start * pxPerFrame));
    const to = Math.ceil(Math.min(waveform.length, drawn.end) * pxPerFrame);
    context.fillStyle = theme.soft;
    for (let px = from; px < to; px++) {
      const first = Math.floor(px / pxPerFrame);
      const last = Math.max(first + 1, Math.ceil((px + 1) / pxPerFrame));
      let loud = 0;
      for (let frame = first; frame < last && frame < waveform.length; frame++) {
        loud = Math.max(loud, waveform[frame]!);
      }
      // Quiet sound stays visible: hearing is roughly logarithmic.
      const across = WAVEFORM * Math.sqrt(loud / 255);
      if (across < 0.5) continue;
      if (axis === "x") context.fillRect(middle - across / 2, px, across, 1);
      else context.fillRect(px, middle - across / 2, 1, across);
    }
  };
  return <Shape sceneFunc={paint} opacity={0.45} listening={false} />;
}
