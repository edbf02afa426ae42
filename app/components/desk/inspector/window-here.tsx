import { Button, Hint } from "~/components/common/button";
import { type CropWindow, largestWindowHeight } from "~/core/geometry/crop-window";
import { MAX_ZOOM } from "~/core/path/framing-settings";
import { useDesk } from "../state/desk-context";
import type { DeskShot } from "../state/desk-types";
import { KeyEasing } from "./key-easing";
import { windowAspect } from "../picture/desk-windows";
import { useFrame } from "../picture/use-player";
import { useShortcutText } from "../shortcuts/use-shortcut-keys";
import { NumberField } from "~/components/common/number-field";

/** Where the window is at this frame, in numbers, and what the key here does. */
export function WindowHere({ shot }: { shot: DeskShot }) {
  const keysOf = useShortcutText();
  const { film, player, version, windowAt, free, keyEdits } = useDesk();
  const frame = useFrame(player);
  const { place, release, ease, copyToOthers } = keyEdits;
  const largest = largestWindowHeight(shot.active ?? film.picture, windowAspect(shot, film.picture, version));
  const window = windowAt(frame);
  const hand = shot.handKeys.find((key) => key.frame === frame);
  const set = (change: Partial<CropWindow>) => {
    player?.pause();
    place(frame, { ...window, ...change });
  };
  return (
    <section aria-label="Window at this frame">
      <h2 className="flex items-baseline justify-between font-display font-semibold">
        Window here
        <span className="font-sans text-xs font-normal text-soft">{hand ? "■ your key" : "laid by the solver"}</span>
      </h2>
      <div className="mt-2 grid grid-cols-2 gap-2">
        <NumberField label="Centre x" unit="px" value={window.x} disabled={!free.x} onCommit={(x) => set({ x })} />
        <NumberField label="Centre y" unit="px" value={window.y} disabled={!free.y} onCommit={(y) => set({ y })} />
        <NumberField
          label="Zoom here"
          unit={`1 to ${MAX_ZOOM}`}
          value={largest / window.height}
          digits={2}
          onCommit={(zoom) => set({ height: largest / Math.min(MAX_ZOOM, Math.max(1, zoom)) })}
        />
      </div>
      {hand && <KeyEasing easing={hand.easing} onChange={(easing) => ease(hand, easing)} />}
      <div className="mt-2 flex flex-wrap gap-2">
        {hand ? (
          <Hint text="Deletes your key; the path is computed here again" shortcut={keysOf("remove-key")}>
            <Button onClick={() => release(frame)}>Delete this key</Button>
          </Hint>
        ) : (
          <Hint text="Keeps the window here at this frame" shortcut={keysOf("place-key")}>
            <Button onClick={() => set({})}>Add a key here</Button>
          </Hint>
        )}
        {hand && copyToOthers && (
          <Hint text="Copies this key to the film's other versions, with the subject at the same place in the window">
            <Button onClick={() => copyToOthers(shot, hand)}>Copy to the other versions</Button>
          </Hint>
        )}
      </div>
    </section>
  );
}
