import { SlidersHorizontal } from "lucide-react";
import { IconPanel } from "~/components/common/icon-panel";
import { TickBox } from "~/components/common/tick-box";
import { useShortcutText } from "../shortcuts/use-shortcut-keys";
import { PercentSlider } from "../inspector/percent-slider";
import { useDesk } from "../state/desk-context";
import { LEAST_PICTURE_SIZE } from "./picture-look";

const SHOWN = [
  { name: "guides", text: "Thirds, centre and eye line", id: "guides" },
  { name: "subjects", text: "Subjects", id: "subjects" },
  { name: "trail", text: "Trail of the window's centre", id: null },
  { name: "safeArea", text: "Safe area", id: null },
] as const;

/** What is shown on the picture, how dark it is outside the window, and how large it is. */
export function PictureLookPanel() {
  const { pictureLook, setPictureLook } = useDesk();
  const keysOf = useShortcutText();
  return (
    <IconPanel title="Picture" Icon={SlidersHorizontal} width="w-72">
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
        label="Shade outside the window"
        value={pictureLook.shade}
        ends={["open", "hidden"]}
        onChange={(shade) => setPictureLook({ shade })}
      />
      <PercentSlider
        label="Size of the picture"
        value={pictureLook.size}
        min={LEAST_PICTURE_SIZE}
        ends={["smaller", "full size"]}
        onChange={(size) => setPictureLook({ size })}
      />
    </IconPanel>
  );
}
