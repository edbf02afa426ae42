import type { Pane } from "~/core/composition/composition";
import type { Size } from "~/core/geometry/box";

/** The windows of a version over a small picture of the film, which it fills. */
export const WindowOutline = ({ panes, picture }: { panes: readonly Pane[]; picture: Size }) => (
  <svg
    viewBox={`0 0 ${picture.width} ${picture.height}`}
    className="pointer-events-none absolute inset-0 size-full"
    aria-hidden
  >
    {panes
      .filter(({ own }) => !own)
      .map(({ source: { x, y, width, height } }, i) => (
        <rect
          key={i}
          {...{ x, y, width, height }}
          vectorEffect="non-scaling-stroke"
          className="fill-none stroke-accent"
          strokeWidth={2}
        />
      ))}
  </svg>
);
