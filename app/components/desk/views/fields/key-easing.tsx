import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import { curveOf, type Easing, EASINGS, isCurve } from "~/core/path/easing";
import { CurveField } from "./curve-field";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.keyEasing;

interface KeyEasingProps {
  easing: Easing | null;
  onChange: (easing: Easing | null) => void;
}

const SOLVER = "solver";
const CURVE = "curve";
const ITEMS: SelectItem[] = [
  { value: SOLVER, text: t.computed, hint: t.computedHint },
  { value: "linear", text: t.linear, hint: t.linearHint },
  { value: "ease", text: t.eased, hint: t.easedHint },
  { value: "ease-in", text: t.softStart, hint: t.softStartHint },
  { value: "ease-out", text: t.softArrival, hint: t.softArrivalHint },
  { value: CURVE, text: t.yourOwnCurve, hint: t.curveHint },
  { value: "hold", text: t.hold, hint: t.holdHint },
];
/** Name of an easing. */
export const easingName = (easing: Easing | null): string =>
  ITEMS.find(({ value }) => value === (isCurve(easing) ? CURVE : (easing ?? SOLVER)))!.text;

/** Starts late and settles slowly, unlike any of the named ones. */
const FIRST_CURVE = curveOf([0.5, 0, 0.15, 1]);

/** Easing from a hand key to the next. */
export function KeyEasing({ easing, onChange }: KeyEasingProps) {
  const curve = isCurve(easing) ? easing : null;
  const select = (value: string) =>
    onChange(value === CURVE ? FIRST_CURVE : (EASINGS.find((named) => named === value) ?? null));
  return (
    <div className="mt-2">
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">{t.easingLabel}</span>
        <SelectMenu
          label={t.easingLabel}
          placeholder=""
          items={ITEMS}
          value={curve ? CURVE : (easing ?? SOLVER)}
          onChange={select}
        />
      </div>
      {curve && (
        <div className="mt-1 flex items-center justify-between gap-2">
          <span className="text-xs text-soft">{t.curveHelp}</span>
          <CurveField curve={curve} onChange={onChange} />
        </div>
      )}
    </div>
  );
}
