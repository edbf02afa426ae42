import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import type { Edge } from "~/core/composition/edge";
import { PercentSlider } from "~/components/common/percent-slider";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.edgeControls;

const LOOKS: SelectItem[] = [
  { value: "none", text: t.none },
  { value: "shadow", text: t.softShadow },
  { value: "feather", text: t.feathered, hint: t.fadesIntoTheBackdrop },
];

/** Edge of a film that does not fill its frame. */
export function EdgeControls({ edge, onChange }: { edge: Edge; onChange: (edge: Edge) => void }) {
  return (
    <>
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">{t.edge}</span>
        <SelectMenu
          label={t.edge}
          placeholder={t.mixed}
          items={LOOKS}
          value={edge.look}
          onChange={(look) => onChange({ ...edge, look: look as Edge["look"] })}
        />
      </div>
      <PercentSlider
        label={t.corners}
        value={edge.corner}
        ends={[t.square, t.round]}
        onChange={(corner) => onChange({ ...edge, corner })}
      />
    </>
  );
}
