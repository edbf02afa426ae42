import { Fold } from "~/components/common/fold";
import { SelectMenu } from "~/components/common/select-menu";
import { TickBox } from "~/components/common/tick-box";
import type { Family } from "~/core/composition/layers/font-families";
import { captionsTexts } from "~/texts/captions";
import { ColourField } from "../fields/colour-field";
import { PercentSlider } from "~/components/common/percent-slider";
import { FAMILY_ITEMS, TextLook, WEIGHT_ITEMS } from "../fields/text-look";
import { useDesk } from "../../hooks/use-desk";

const t = captionsTexts.captionsLook;

/** First colour of the spoken word. */
const FIRST_HIGHLIGHT = "#ffd166";

/** Style and place of the captions in the version. */
export function CaptionsLook() {
  const { version, captionCommands } = useDesk("version", "captionCommands");
  const { captions } = version;
  const { set } = captionCommands;
  return (
    <Fold title={t.look}>
      <div className="flex items-center justify-between gap-2">
        <SelectMenu
          label={t.typeface}
          placeholder=""
          items={FAMILY_ITEMS}
          value={captions.family}
          onChange={(family) => set({ family: family as Family })}
        />
        <SelectMenu
          label={t.weight}
          placeholder={String(captions.weight)}
          items={WEIGHT_ITEMS}
          value={String(captions.weight)}
          onChange={(weight) => set({ weight: Number(weight) })}
        />
      </div>
      <TextLook look={captions} onChange={set} />
      <label className="flex items-center gap-2 text-xs">
        <TickBox
          checked={captions.highlight !== null}
          onChange={(isOn) => set({ highlight: isOn ? FIRST_HIGHLIGHT : null })}
        />
        {t.highlight}
      </label>
      {captions.highlight !== null && (
        <ColourField
          label={t.colourOfHighlight}
          colour={captions.highlight}
          onChange={(highlight) => set({ highlight })}
        />
      )}
      <label className="flex items-center gap-2 text-xs">
        <TickBox checked={captions.speakers} onChange={(speakers) => set({ speakers })} />
        {t.speakers}
      </label>
      <label className="flex items-center gap-2 text-xs">
        <TickBox checked={captions.place === null} onChange={(isOn) => set({ place: isOn ? null : 1 })} />
        {t.offFaces}
      </label>
      {captions.place !== null && (
        <PercentSlider
          label={t.place}
          value={Math.round(100 * captions.place)}
          ends={[t.top, t.foot]}
          onChange={(percent) => set({ place: percent / 100 })}
        />
      )}
    </Fold>
  );
}
