import { Fold } from "~/components/common/fold";
import { NumberField } from "~/components/common/number-field";
import { TickBox } from "~/components/common/tick-box";
import { clamped } from "~/core/numbers/clamped";
import type { CaptionRules } from "~/core/captions/caption-settings";
import { captionsTexts } from "~/texts/captions";
import { useDesk } from "../../hooks/use-desk";

const t = captionsTexts.captionsRules;

const NUMBERS = [
  { rule: "lines", label: t.lines, unit: t.atMost, digits: 0, least: 1, most: 4 },
  { rule: "pace", label: t.pace, unit: t.charactersPerSecond, digits: 0, least: 5, most: 60 },
  { rule: "least", label: t.shortest, unit: t.seconds, digits: 1, least: 0.2, most: 5 },
  { rule: "most", label: t.longest, unit: t.seconds, digits: 1, least: 1, most: 30 },
  { rule: "gap", label: t.gap, unit: t.seconds, digits: 2, least: 0, most: 2 },
] as const;

/** The rules of legibility; captions that break one are marked. */
export function CaptionsRules() {
  const { version, captionCommands } = useDesk("version", "captionCommands");
  const { rules } = version.captions;
  const set = (change: Partial<CaptionRules>) => captionCommands.set({ rules: { ...rules, ...change } });
  return (
    <Fold title={t.rules}>
      <div className="grid grid-cols-2 gap-2">
        {NUMBERS.map(({ rule, label, unit, digits, least, most }) => (
          <NumberField
            key={rule}
            label={label}
            unit={unit}
            value={rules[rule]}
            digits={digits}
            step={digits === 0 ? 1 : 0.1}
            onCommit={(value) => set({ [rule]: clamped(value, least, most) })}
          />
        ))}
      </div>
      <label className="flex items-center gap-2 text-xs">
        <TickBox
          checked={rules.lineLength === null}
          onChange={(isOn) => set({ lineLength: isOn ? null : captionCommands.lineLength })}
        />
        {t.lineByWidth(captionCommands.lineLength)}
      </label>
      {rules.lineLength !== null && (
        <NumberField
          label={t.lineLength}
          unit={t.letters}
          value={rules.lineLength}
          digits={0}
          onCommit={(value) => set({ lineLength: clamped(Math.round(value), 8, 80) })}
        />
      )}
    </Fold>
  );
}
