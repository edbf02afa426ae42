import { groundOf } from "~/core/composition/layers/draw-layer";
import { safeBox } from "~/core/composition/layers/safe-area";
import { useDesk } from "../../hooks/use-desk";
import { shareOf } from "./share-of";

/** A side covered by more than this share has more on it than a margin. */
const MARGIN = 0.1;
const BUTTONS = 4;

/** The safe area, with a plain outline of what covers the rest: buttons at the right, a name and text at the bottom. */
export function SafeAreaOutline() {
  const { version } = useDesk("version");
  const { frame, safe } = groundOf(version);
  const area = safeBox(safe, frame);
  const right = { x: area.x + area.width, y: area.y, width: safe.right * frame.width, height: area.height };
  const foot = { x: area.x, y: area.y + area.height, width: area.width, height: safe.foot * frame.height };
  return (
    <div aria-hidden className="pointer-events-none absolute inset-0">
      <div className="absolute border border-dashed border-white/60" style={shareOf(area, version)} />
      {safe.right > MARGIN && (
        <div
          className="absolute flex flex-col items-center justify-end gap-[6%] pb-[8%]"
          style={shareOf(right, version)}
        >
          {Array.from({ length: BUTTONS }, (_, i) => (
            <span key={i} className="aspect-square w-1/2 rounded-full border border-white/60" />
          ))}
        </div>
      )}
      {safe.foot > MARGIN && (
        <div className="absolute flex flex-col justify-center gap-[8%]" style={shareOf(foot, version)}>
          {["w-1/3", "w-4/5", "w-3/5"].map((width) => (
            <span key={width} className={`h-[10%] rounded-full border border-white/60 ${width}`} />
          ))}
        </div>
      )}
    </div>
  );
}
