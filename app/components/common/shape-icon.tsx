import { clsx } from "clsx";
import type { Size } from "~/core/geometry/box";

/** A small outline of a frame's aspect ratio. */
export function ShapeIcon({ width, height, active = false }: Size & { active?: boolean }) {
  const longest = Math.max(width, height);
  return (
    <svg viewBox="0 0 16 16" className="size-4 shrink-0" aria-hidden>
      <rect
        x={8 - (7 * width) / longest}
        y={8 - (7 * height) / longest}
        width={(14 * width) / longest}
        height={(14 * height) / longest}
        rx={1}
        className={clsx(active ? "fill-accent" : "fill-soft/60")}
      />
    </svg>
  );
}
