import { useHotkeys } from "react-hotkeys-hook";
import { Button } from "~/components/common/button";
import { NumberField } from "~/components/common/number-field";
import { clamped } from "~/core/numbers/clamped";
import { counted } from "~/texts/numbers";
import { useDesk } from "../../hooks/use-desk";
import type { Reshaping } from "../../model/reshaping";
import { rangesTexts } from "~/texts/ranges";

const t = rangesTexts.reshapePanel;

const TITLES: Record<Reshaping["how"], string> = {
  steered: t.steered,
  smoothed: t.smooth,
  shifted: "Shift",
  reversed: t.reverse,
};
const MOST_SECONDS = 3;
const TOLERANCES = { least: 0.2, most: 20 } as const;

/** The controls that reshape a range of the path: the desk shows the result until it is kept or discarded. */
export function ReshapePanel() {
  const { reshape } = useDesk("reshape");
  const { reshaping, keys, show, keep, discard } = reshape;
  useHotkeys("enter", keep, { enabled: reshaping !== null });
  useHotkeys("escape", discard, { enabled: reshaping !== null });
  if (!reshaping) return null;
  const { how, smoothing, tolerance, by, fade } = reshaping;
  return (
    <div
      role="group"
      aria-label={t.reshapeThePath}
      className="absolute bottom-3 left-1/2 flex w-max max-w-[95%] -translate-x-1/2 flex-wrap items-end gap-3 rounded-md border border-line bg-raised p-3 text-sm shadow-lg [&_input]:w-20"
    >
      <div>
        <h2 className="font-display font-semibold">{TITLES[how]}</h2>
        <span aria-label={t.keys} className="text-xs text-soft">
          {counted(keys, "key")}
        </span>
      </div>
      {(how === "steered" || how === "smoothed") && (
        <NumberField
          label={t.smoothing}
          unit={t.s}
          digits={2}
          step={0.05}
          value={smoothing}
          onCommit={(value) => show({ ...reshaping, smoothing: clamped(value, 0, MOST_SECONDS) })}
        />
      )}
      {how === "shifted" && (
        <>
          <NumberField
            label={t.right}
            unit={t.px}
            canBeNegative
            rest={0}
            value={by.x}
            onCommit={(x) => show({ ...reshaping, by: { ...by, x } })}
          />
          <NumberField
            label={t.down}
            unit={t.px}
            canBeNegative
            rest={0}
            value={by.y}
            onCommit={(y) => show({ ...reshaping, by: { ...by, y } })}
          />
          <NumberField
            label={t.softEnds}
            unit={t.s}
            digits={2}
            step={0.05}
            value={fade}
            onCommit={(value) => show({ ...reshaping, fade: clamped(value, 0, MOST_SECONDS) })}
          />
        </>
      )}
      <NumberField
        label={t.tolerance}
        unit={t.ofTheWindow}
        step={0.2}
        value={tolerance}
        hint={t.toleranceHint}
        onCommit={(value) => show({ ...reshaping, tolerance: clamped(value, TOLERANCES.least, TOLERANCES.most) })}
      />
      <Button variant="accent" onClick={keep}>
        {t.keep}
      </Button>
      <Button onClick={discard}>{t.discard}</Button>
    </div>
  );
}
