import { Hint } from "~/components/common/button";
import { bordersOf, dividedSide, placeBoxes, type Stack, withBorder } from "~/core/composition/stack";
import type { Size } from "~/core/geometry/box";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { PaneNumberTag } from "../fields/pane-number-tag";
import { shareOf } from "./share-of";
import { useLayoutDrag } from "./use-layout-drag";
import { useShortcutText } from "../../hooks/use-shortcut-keys";
import { resultTexts } from "~/texts/result";

const t = resultTexts.stackHandles;

const SNAPS = [1 / 4, 1 / 3, 0.5, 2 / 3, 3 / 4];
/** Shortcuts that select each pane. */
const PANE_KEYS = ["pane-1", "pane-2", "pane-3"] as const;
/** Width of the grip between two panes, in pixels of the screen. */
const GRIP = 12;

interface StackHandlesProps {
  shot: DeskShot;
  stack: Stack;
  /** Size of the result on the screen. */
  size: Size;
}

/** The panes of a stack on the result, to select them, and their borders, to move them. */
export function StackHandles({ shot, stack, size }: StackHandlesProps) {
  const keysOf = useShortcutText();
  const { version, selectPane } = useDesk("version", "selectPane");
  const boxes = placeBoxes(stack, version);
  return (
    <>
      {stack.places.map(
        ({ pane, own }, place) =>
          !own && (
            <Hint key={pane} text={t.selectPane(pane + 1)} shortcut={keysOf(PANE_KEYS[pane]!)}>
              <button
                type="button"
                aria-pressed={shot.pane === pane}
                aria-label={t.pane(pane + 1)}
                onClick={() => selectPane(pane)}
                className="pointer-events-auto absolute border-2 border-transparent hover:border-white/60 aria-pressed:border-accent"
                style={shareOf(boxes[place]!, version)}
              >
                <PaneNumberTag pane={pane} isSelected={shot.pane === pane} />
              </button>
            </Hint>
          ),
      )}
      {stack.places.slice(1).map(({ pane }, place) => (
        <Border key={pane} shot={shot} stack={stack} place={place} size={size} />
      ))}
    </>
  );
}

/** The border after a pane. */
function Border({ shot, stack, place, size }: StackHandlesProps & { place: number }) {
  const { version } = useDesk("version");
  const side = dividedSide(version);
  const at = bordersOf(stack)[place + 1]!;
  const axis = side === "height" ? "y" : "x";
  const { handlers } = useLayoutDrag({
    shot,
    axis,
    snaps: SNAPS,
    value: at,
    room: size[side],
    layoutAt: (value) => withBorder(stack, place, value),
  });
  const [upper, lower] = placeBoxes(stack, version).slice(place, place + 2);
  const middle = axis === "y" ? (upper!.y + upper!.height + lower!.y) / 2 : (upper!.x + upper!.width + lower!.x) / 2;
  const from = (size[side] * middle) / version[side] - GRIP / 2;
  return (
    <Hint text={t.borderHint}>
      <div
        role="separator"
        tabIndex={0}
        aria-roledescription={t.movableBorder}
        aria-orientation={axis === "y" ? "horizontal" : "vertical"}
        aria-label={t.paneBorder(stack.places[place]!.pane + 1, stack.places[place + 1]!.pane + 1)}
        aria-valuenow={Math.round(100 * at)}
        className="group pointer-events-auto absolute flex touch-none items-center justify-center"
        style={
          axis === "y"
            ? { left: 0, right: 0, top: from, height: GRIP, cursor: "row-resize" }
            : { top: 0, bottom: 0, left: from, width: GRIP, cursor: "col-resize" }
        }
        {...handlers}
      >
        <span
          className={`rounded-full bg-white/80 shadow group-hover:bg-accent ${axis === "y" ? "h-1 w-10" : "h-10 w-1"}`}
        />
      </div>
    </Hint>
  );
}
