import { SelectMenu } from "~/components/common/select-menu";
import type { Preset } from "~/core/edits/preset";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.presetChoice;

const NONE = "none";

interface PresetChoiceProps {
  presets: readonly Preset[];
  /** Id of the selected preset; null for none. */
  value: string | null;
  onChange: (presetId: string | null) => void;
}

/** The preset that new films begin with; nothing while there are none. */
export function PresetChoice({ presets, value, onChange }: PresetChoiceProps) {
  if (presets.length === 0) return null;
  const known = presets.some(({ id }) => id === value);
  return (
    <div className="flex items-center gap-2 text-sm">
      <span className="text-xs text-soft">{t.preset}</span>
      <SelectMenu
        label={t.presetLabel}
        placeholder=""
        value={known ? value! : NONE}
        items={[
          { value: NONE, text: t.none, hint: t.oneVerticalVersionWithEverything },
          ...presets.map(({ id, name, versions }) => ({
            value: id,
            text: name,
            hint: t.itsVersions(versions.length, versions.map(({ name: version }) => version).join(", ")),
          })),
        ]}
        onChange={(next) => onChange(next === NONE ? null : next)}
      />
    </div>
  );
}
