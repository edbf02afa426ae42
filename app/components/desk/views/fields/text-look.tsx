import { type SelectItem } from "~/components/common/select-menu";
import { TickBox } from "~/components/common/tick-box";
import type { Family } from "~/core/composition/layers/font-families";
import type { TextLayer } from "~/core/composition/layers/layer";
import { ColourField } from "./colour-field";
import { PercentSlider } from "~/components/common/percent-slider";
import { layersTexts } from "~/texts/layers";

const t = layersTexts.textLook;

export const FAMILY_ITEMS: (SelectItem & { value: Family })[] = [
  { value: "display", text: "Bricolage Grotesque" },
  { value: "plain", text: "Inter" },
  { value: "serif", text: "Source Serif" },
  { value: "mono", text: "JetBrains Mono" },
];
export const WEIGHT_ITEMS: SelectItem[] = [
  { value: "300", text: t.light },
  { value: "400", text: t.regular },
  { value: "600", text: t.semibold },
  { value: "700", text: t.bold },
  { value: "800", text: t.extraBold },
];
/** Largest size on the slider, as a share of the frame's shorter side; widest outline in em. */
const MOST_SIZE = 0.3;
const MOST_OUTLINE = 0.15;
const FIRST_BOX: NonNullable<TextLayer["box"]> = { colour: "#101216", opacity: 75, corner: 30 };

type Look = Pick<TextLayer, "size" | "colour" | "outline" | "outlineColour" | "shadow" | "box">;

interface TextLookProps {
  look: Look;
  onChange: (change: Partial<Look>) => void;
}

/** Size and colours of the text, and its box. */
export function TextLook({ look, onChange }: TextLookProps) {
  return (
    <>
      <PercentSlider
        label={t.size}
        value={Math.round((100 * Math.min(look.size, MOST_SIZE)) / MOST_SIZE)}
        ends={[t.small, t.large]}
        onChange={(percent) => onChange({ size: Math.max(0.01, (percent / 100) * MOST_SIZE) })}
      />
      <ColourField label={t.colour} colour={look.colour} onChange={(colour) => onChange({ colour })} />
      <PercentSlider
        label={t.outline}
        value={Math.round((100 * look.outline) / MOST_OUTLINE)}
        ends={[t.none, t.wide]}
        onChange={(percent) => onChange({ outline: (percent / 100) * MOST_OUTLINE })}
      />
      {look.outline > 0 && (
        <ColourField
          label={t.colourOfTheOutline}
          colour={look.outlineColour}
          onChange={(outlineColour) => onChange({ outlineColour })}
        />
      )}
      <PercentSlider
        label={t.shadow}
        value={look.shadow}
        ends={[t.none, t.dark]}
        onChange={(shadow) => onChange({ shadow })}
      />
      <label className="flex items-center gap-2 text-xs">
        <TickBox checked={look.box !== null} onChange={(checked) => onChange({ box: checked ? FIRST_BOX : null })} />
        {t.boxBehindTheText}
      </label>
      {look.box && <BoxControls box={look.box} onChange={(box) => onChange({ box })} />}
    </>
  );
}

interface BoxControlsProps {
  box: NonNullable<TextLayer["box"]>;
  onChange: (box: NonNullable<TextLayer["box"]>) => void;
}

function BoxControls({ box, onChange }: BoxControlsProps) {
  return (
    <>
      <ColourField label={t.colourOfTheBox} colour={box.colour} onChange={(colour) => onChange({ ...box, colour })} />
      <PercentSlider
        label={t.opacityOfTheBox}
        value={box.opacity}
        ends={[t.clear, t.solid]}
        onChange={(opacity) => onChange({ ...box, opacity })}
      />
      <PercentSlider
        label={t.cornersOfTheBox}
        value={box.corner}
        ends={[t.square, t.round]}
        onChange={(corner) => onChange({ ...box, corner })}
      />
    </>
  );
}
