import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import { curveOf, type Easing, EASINGS, isCurve } from "~/core/path/easing";
import { CurveField } from "./curve-field";

interface KeyEasingProps {
  easing: Easing | null;
  onChange: (easing: Easing | null) => void;
}

const SOLVER = "solver";
const CURVE = "curve";
const ITEMS: SelectItem[] = [
  { value: SOLVER, text: "Computed", hint: "Follows the subject to your next key" },
  { value: "linear", text: "Linear", hint: "Constant speed to your next key" },
  { value: "ease", text: "Eased", hint: "Starts and arrives softly" },
  { value: "ease-in", text: "Soft start", hint: "Starts softly and arrives at speed" },
  { value: "ease-out", text: "Soft arrival", hint: "Starts at speed and arrives softly" },
  { value: CURVE, text: "Your own curve", hint: "Shaped by two handles" },
  { value: "hold", text: "Hold", hint: "Stays here until your next key, or the shot's end" },
];
/** What an easing is called. */
export const easingName = (easing: Easing | null): string =>
  ITEMS.find(({ value }) => value === (isCurve(easing) ? CURVE : (easing ?? SOLVER)))!.text;

/** Leaves late and settles for long, which none of the named ones does. */
const FIRST_CURVE = curveOf([0.5, 0, 0.15, 1]);

/** How the window gets from a hand key to the next one. */
export function KeyEasing({ easing, onChange }: KeyEasingProps) {
  const curve = isCurve(easing) ? easing : null;
  const choose = (value: string) =>
    onChange(value === CURVE ? FIRST_CURVE : (EASINGS.find((named) => named === value) ?? null));
  return (
    <div className="mt-2">
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">Easing to your next key</span>
        <SelectMenu
          label="Easing to your next key"
          placeholder=""
          items={ITEMS}
          value={curve ? CURVE : (easing ?? SOLVER)}
          onChange={choose}
        />
      </div>
      {curve && (
        <div className="mt-1 flex items-center justify-between gap-2">
          <span className="text-xs text-soft">Time runs to the right, distance upwards. Drag the handles.</span>
          <CurveField curve={curve} onChange={onChange} />
        </div>
      )}
    </div>
  );
}
