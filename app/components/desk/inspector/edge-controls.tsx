import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import type { Edge } from "~/core/composition/edge";
import { PercentSlider } from "./percent-slider";

const LOOKS: SelectItem[] = [
  { value: "none", text: "None" },
  { value: "shadow", text: "Soft shadow" },
  { value: "feather", text: "Feathered", hint: "Fades into the backdrop" },
];

/** How the border of a film looks that does not fill its frame. */
export function EdgeControls({ edge, onChange }: { edge: Edge; onChange: (edge: Edge) => void }) {
  return (
    <>
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">Edge</span>
        <SelectMenu
          label="Edge"
          placeholder="Mixed"
          items={LOOKS}
          value={edge.look}
          onChange={(look) => onChange({ ...edge, look: look as Edge["look"] })}
        />
      </div>
      <PercentSlider
        label="Corners"
        value={edge.corner}
        ends={["square", "round"]}
        onChange={(corner) => onChange({ ...edge, corner })}
      />
    </>
  );
}
