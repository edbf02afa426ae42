import { NumberField } from "~/components/common/number-field";
import { clamped } from "~/core/numbers/clamped";
import {
  EYE_LINE_RANGE,
  type FramingChange,
  type FramingSettings,
  MOST_OFFSET,
  USUAL_FRAMING,
} from "~/core/path/framing-settings";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.aimControls;

interface AimControlsProps {
  /** The settings; of several shots, those they share. */
  settings: Partial<FramingSettings>;
  onChange: (change: FramingChange) => void;
}

const SIDES = [
  { axis: "x", label: t.offsetRight, hint: t.ofTheWindowsWidthNegative },
  { axis: "y", label: t.offsetDown, hint: t.ofTheWindowsHeightNegative },
] as const;

/** Place of the subject in the window: a constant offset, and the height of its eye line. */
export function AimControls({ settings, onChange }: AimControlsProps) {
  const { offset, eyeLine } = settings;
  return (
    <section aria-label={t.aim} className="flex flex-col gap-1">
      <span className="text-xs text-soft">{t.aimBesideTheSubject}</span>
      <div className="grid grid-cols-2 gap-2">
        {offset &&
          SIDES.map(({ axis, label, hint }) => (
            <NumberField
              key={axis}
              label={label}
              unit="%"
              hint={hint}
              value={100 * offset[axis]}
              rest={0}
              canBeNegative
              onCommit={(percent) =>
                onChange({ offset: { ...offset, [axis]: clamped(percent / 100, -MOST_OFFSET, MOST_OFFSET) } })
              }
            />
          ))}
        {eyeLine !== undefined && (
          <NumberField
            label={t.eyeLine}
            unit="%"
            hint={t.eyeLineHint}
            value={eyeLine}
            rest={USUAL_FRAMING.eyeLine}
            onCommit={(percent) => onChange({ eyeLine: clamped(percent, EYE_LINE_RANGE.least, EYE_LINE_RANGE.most) })}
          />
        )}
      </div>
    </section>
  );
}
