import { SelectMenu } from "~/components/common/select-menu";
import { counted } from "~/core/counted";
import type { HouseStyle } from "~/core/edits/house-style";

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
      <span className="text-xs text-soft">House style</span>
      <SelectMenu
        label="House style for films that are added"
        placeholder=""
        value={known ? value! : NONE}
        items={[
          { value: NONE, text: "None", hint: "One vertical version, with everything as usual" },
          ...styles.map(({ id, name, versions }) => ({
            value: id,
            text: name,
            hint: `${counted(versions.length, "version")}: ${versions.map((version) => version.name).join(", ")}`,
          })),
        ]}
        onChange={(next) => onChange(next === NONE ? null : next)}
      />
    </div>
  );
}
