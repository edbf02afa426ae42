import { SelectMenu } from "~/components/common/select-menu";
import type { HouseStyle } from "~/core/edits/house-style";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.styleChoice;

const NONE = "none";

interface StyleChoiceProps {
  styles: readonly HouseStyle[];
  /** Id of the style that is picked; null for none. */
  value: string | null;
  onChange: (styleId: string | null) => void;
}

/** The house style that films which are added now begin with; nothing while there are none. */
export function StyleChoice({ styles, value, onChange }: StyleChoiceProps) {
  if (styles.length === 0) return null;
  const known = styles.some(({ id }) => id === value);
  return (
    <div className="flex items-center gap-2 text-sm">
      <span className="text-xs text-soft">{t.houseStyle}</span>
      <SelectMenu
        label={t.houseStyleForFilmsThat}
        placeholder=""
        value={known ? value! : NONE}
        items={[
          { value: NONE, text: t.none, hint: t.oneVerticalVersionWithEverything },
          ...styles.map(({ id, name, versions }) => ({
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
