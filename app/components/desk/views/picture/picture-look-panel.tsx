import { SlidersHorizontal } from "lucide-react";
import { IconPanel } from "~/components/common/icon-panel";
import { TickBox } from "~/components/common/tick-box";
import { useShortcutText } from "../../hooks/use-shortcut-keys";
import { PercentSlider } from "~/components/common/percent-slider";
import { useDesk } from "../../hooks/use-desk";
import { LEAST_PICTURE_SIZE } from "../../model/picture-look";
import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.pictureLookPanel;

const SHOWN = [
  { name: "guides", text: t.thirdsCentreAndEyeLine, id: "guides" },
  { name: "subjects", text: t.subjects, id: "subjects" },
  { name: "trail", text: t.trailOfTheWindowsCentre, id: null },
  { name: "safeArea", text: t.safeArea, id: null },
] as const;

/** Display of the picture: overlays, shade outside the window, and size. */
export function PictureLookPanel() {
  const { pictureLook, setPictureLook } = useDesk("pictureLook", "setPictureLook");
  const keysOf = useShortcutText();
  return (
    <IconPanel title={t.picture} Icon={SlidersHorizontal} width="w-72">
      <div className="flex flex-col gap-2">
        {SHOWN.map(({ name, text, id }) => (
          <label key={name} className="flex items-center gap-2 text-sm">
            <TickBox checked={pictureLook[name]} onChange={(shows) => setPictureLook({ [name]: shows })} />
            {text}
            {id && <kbd className="ml-auto rounded-sm bg-well px-1.5 py-0.5 font-mono text-xs">{keysOf(id)}</kbd>}
          </label>
        ))}
      </div>
      <PercentSlider
        label={t.shadeOutsideTheWindow}
        value={pictureLook.shade}
        ends={[t.open, t.hidden]}
        onChange={(shade) => setPictureLook({ shade })}
      />
      <PercentSlider
        label={t.sizeOfThePicture}
        value={pictureLook.size}
        min={LEAST_PICTURE_SIZE}
        ends={[t.smaller, t.fullSize]}
        onChange={(size) => setPictureLook({ size })}
      />
    </IconPanel>
  );
}
