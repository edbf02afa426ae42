import { clamped } from "~/core/numbers/clamped";
import { Button, Hint } from "~/components/common/button";
import { boxCentre } from "~/core/geometry/box";
import { activeArea } from "~/core/shots/shot";
import { type CropWindow, largestWindowHeight } from "~/core/geometry/crop-window";
import { MAX_ZOOM } from "~/core/path/framing-settings";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { KeyEasing } from "../fields/key-easing";
import { windowAspect } from "../../model/windows";
import { useFrame } from "../../hooks/use-player";
import { useShortcutText } from "../../hooks/use-shortcut-keys";
import { NumberField } from "~/components/common/number-field";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.windowHere;

/** The window at this frame in numbers, and the commands on its key. */
export function WindowHere({ shot }: { shot: DeskShot }) {
  const keysOf = useShortcutText();
  const { film, player, version, windowAt, free, keyCommands } = useDesk(
    "film",
    "player",
    "version",
    "windowAt",
    "free",
    "keyCommands",
  );
  const frame = useFrame(player);
  const { place, preview, release, ease, copyToOthers } = keyCommands;
  const largest = largestWindowHeight(shot.active ?? film.picture, windowAspect(shot, film.picture, version));
  const window = windowAt(frame);
  const hand = shot.handKeys.find((key) => key.frame === frame);
  const set = (change: Partial<CropWindow>) => {
    player?.pause();
    place(frame, { ...window, ...change });
  };
  const show = (change: Partial<CropWindow> | null) => {
    player?.pause();
    preview(frame, change && { ...window, ...change });
  };
  const zoomed = (zoom: number) => ({ height: largest / clamped(zoom, 1, MAX_ZOOM) });
  const centre = boxCentre(activeArea(shot, film.picture));
  return (
    <section aria-label={t.windowAtThisFrame}>
      <h2 className="flex items-baseline justify-between font-display font-semibold">
        {t.windowHere}
        <span className="font-sans text-xs font-normal text-soft">{hand ? t.yours : t.computed}</span>
      </h2>
      <div className="mt-2 grid grid-cols-2 gap-2">
        {(["x", "y"] as const).map((axis) => (
          <NumberField
            key={axis}
            label={t.centre(axis)}
            unit={t.px}
            value={window[axis]}
            disabled={!free[axis]}
            rest={centre[axis]}
            onPreview={(value) => show(value === null ? null : { [axis]: value })}
            onCommit={(value) => set({ [axis]: value })}
          />
        ))}
        <NumberField
          label={t.zoomHere}
          unit={t.from1To(MAX_ZOOM)}
          value={largest / window.height}
          digits={2}
          step={0.01}
          rest={1}
          onPreview={(zoom) => show(zoom === null ? null : zoomed(zoom))}
          onCommit={(zoom) => set(zoomed(zoom))}
        />
      </div>
      {hand && <KeyEasing easing={hand.easing} onChange={(easing) => ease(hand, easing)} />}
      <div className="mt-2 flex flex-wrap gap-2">
        {hand ? (
          <Hint text={t.deleteHint} shortcut={keysOf("remove-key")}>
            <Button onClick={() => release(frame)}>{t.deleteKeyframe}</Button>
          </Hint>
        ) : (
          <Hint text={t.addHint} shortcut={keysOf("place-key")}>
            <Button onClick={() => set({})}>{t.addKeyframe}</Button>
          </Hint>
        )}
        {hand && copyToOthers && (
          <Hint text={t.copyHint}>
            <Button onClick={() => copyToOthers(shot, hand)}>{t.copyToVersions}</Button>
          </Hint>
        )}
      </div>
    </section>
  );
}
