import { NumberField } from "~/components/common/number-field";
import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import { clamped } from "~/core/clamped";
import {
  type AttentionSettings,
  HOLD_RANGE,
  TURN_STYLES,
  type TurnStyle,
  USUAL_ATTENTION,
} from "~/core/subjects/attention/attention-settings";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.attentionFields;

const STYLES: SelectItem[] = TURN_STYLES.map((value) => ({ value, ...t.styles[value] }));

interface AttentionFieldsProps {
  settings: Pick<AttentionSettings, "hold" | "turns">;
  onChange: (change: Partial<Pick<AttentionSettings, "hold" | "turns">>) => void;
}

/** How the window gets from one subject to the next within a shot, and how long it stays with each at least. */
export function AttentionFields({ settings, onChange }: AttentionFieldsProps) {
  return (
    <div className="flex items-end justify-between gap-2">
      <div>
        <span className="block text-xs text-soft">{t.turnStyle}</span>
        <SelectMenu
          label={t.turnStyle}
          placeholder={t.turnStyle}
          items={STYLES}
          value={settings.turns}
          onChange={(turns) => onChange({ turns: turns as TurnStyle })}
        />
      </div>
      <div className="w-28">
        <NumberField
          label={t.holdAtLeast}
          unit="s"
          value={settings.hold}
          step={0.5}
          rest={USUAL_ATTENTION.hold}
          onCommit={(hold) => onChange({ hold: clamped(hold, HOLD_RANGE.least, HOLD_RANGE.most) })}
        />
      </div>
    </div>
  );
}
