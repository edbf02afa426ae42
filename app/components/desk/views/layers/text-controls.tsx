import { Type } from "lucide-react";
import { useState } from "react";
import { OwnFilePicker } from "~/components/common/own-file-picker";
import { sendFont } from "~/components/common/send-own-file";
import { ChoiceBar } from "~/components/common/choice-bar";
import { SelectMenu } from "~/components/common/select-menu";
import { TickBox } from "~/components/common/tick-box";
import type { Family } from "~/core/composition/layers/font-families";
import { groundOf, placeLayer } from "~/core/composition/layers/draw-layer";
import { MOST_TEXT, type TextLayer } from "~/core/composition/layers/layer";
import { useDesk } from "../../hooks/use-desk";
import { measuringPen } from "./measuring-pen";
import { FAMILY_ITEMS, WEIGHT_ITEMS, TextLook } from "../fields/text-look";
import { layersTexts } from "~/texts/layers";

const t = layersTexts.textControls;

/** Menu value of the editor's own font. */
const OWN = "own";
const ALIGNS = [
  { value: "left", name: t.left, hint: t.flushLeft },
  { value: "centre", name: t.centre, hint: t.centred },
  { value: "right", name: t.right, hint: t.flushRight },
] as const;

interface TextControlsProps {
  layer: TextLayer;
  onChange: (layer: TextLayer) => void;
}

/** What a text layer says, and its look. */
export function TextControls({ layer, onChange }: TextControlsProps) {
  const { version } = useDesk("version");
  const set = (change: Partial<TextLayer>) => onChange({ ...layer, ...change });
  const ground = groundOf(version);
  const { fits } = placeLayer(layer, ground, measuringPen()).block!;
  return (
    <>
      <Words layer={layer} onChange={(text) => set({ text })} />
      {!fits && (
        <p role="alert" className="text-xs text-warn">
          {t.thisTextDoesNotFit}
        </p>
      )}
      <label className="flex items-center gap-2 text-xs">
        <TickBox checked={layer.shrinks} onChange={(shrinks) => set({ shrinks })} />
        {t.shrinkToFit}
      </label>
      <div className="flex items-center justify-between gap-2">
        <SelectMenu
          label={t.typeface}
          placeholder=""
          items={layer.font ? [...FAMILY_ITEMS, { value: OWN, text: layer.font.name }] : FAMILY_ITEMS}
          value={layer.font ? OWN : layer.family}
          onChange={(family) => family !== OWN && set({ family: family as Family, font: null })}
        />
        {!layer.font && (
          <SelectMenu
            label={t.weight}
            placeholder={String(layer.weight)}
            items={WEIGHT_ITEMS}
            value={String(layer.weight)}
            onChange={(weight) => set({ weight: Number(weight) })}
          />
        )}
      </div>
      <OwnFilePicker
        text={t.yourOwnFont}
        hint={t.fontFormats}
        Icon={Type}
        accept=".ttf,.otf,.woff2"
        send={([file]) => sendFont(file!)}
        onPicked={(font) => set({ font })}
      />
      <ChoiceBar
        label={t.alignment}
        choices={ALIGNS}
        value={layer.align}
        onChange={(align) => set({ align })}
        className="grid-cols-3"
      />
      <TextLook look={layer} onChange={set} />
    </>
  );
}

/** The text: previewed as it is typed, and committed when the field is left. */
function Words({ layer, onChange }: { layer: TextLayer; onChange: (text: string) => void }) {
  const { preview } = useDesk("layerCommands").layerCommands;
  // While typing, the layer on the desk already is the preview.
  const [typed, setTyped] = useState<{ text: string; before: string } | null>(null);
  const isSome = (text: string) => text.trim() !== "";
  const leave = () => {
    if (!typed) return;
    setTyped(null);
    if (isSome(typed.text) && typed.text !== typed.before) onChange(typed.text);
    else preview(null);
  };
  return (
    <textarea
      aria-label={t.whatTheTextSays}
      rows={3}
      maxLength={MOST_TEXT}
      value={typed?.text ?? layer.text}
      onChange={({ target: { value } }) => {
        setTyped({ text: value, before: typed?.before ?? layer.text });
        if (isSome(value)) preview({ ...layer, text: value });
      }}
      onBlur={leave}
      onKeyDown={({ key }) => {
        if (key !== "Escape") return;
        setTyped(null);
        preview(null);
      }}
      className="w-full resize-y rounded-md border border-line bg-raised px-2 py-1.5 text-sm"
    />
  );
}
