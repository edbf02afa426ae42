import { NumberField } from "~/components/common/number-field";
import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import { clamped } from "~/core/numbers/clamped";
import {
  type AttentionSettings,
  SHORTEST_STAY,
  SWITCH_STYLES,
  type SwitchStyle,
  USUAL_ATTENTION,
} from "~/core/subjects/attention/attention-settings";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.attentionFields;

const STYLES: SelectItem[] = SWITCH_STYLES.map((value) => ({ value, ...t.styles[value] }));

interface AttentionFieldsProps {
  settings: Pick<AttentionSettings, "switchBy" | "shortestStay">;
  onChange: (change: Partial<Pick<AttentionSettings, "switchBy" | "shortestStay">>) => void;
}

/** How the window switches between subjects within a shot, and the shortest stay with each. */
export function AttentionFields({ settings, onChange }: AttentionFieldsProps) {
  return (
    <div className="flex items-end justify-between gap-2">
      <div>
        <span className="block text-xs text-soft">{t.switchBy}</span>
        <SelectMenu
          label={t.switchBy}
          placeholder={t.switchBy}
          items={STYLES}
          value={settings.switchBy}
          onChange={(style) => onChange({ switchBy: style as SwitchStyle })}
        />
      </div>
      <div className="w-28">
        <NumberField
          label={t.shortestStay}
          unit="s"
          value={settings.shortestStay}
          step={0.5}
          rest={USUAL_ATTENTION.shortestStay}
          onCommit={(seconds) => onChange({ shortestStay: clamped(seconds, SHORTEST_STAY.least, SHORTEST_STAY.most) })}
        />
      </div>
    </div>
  );
}
