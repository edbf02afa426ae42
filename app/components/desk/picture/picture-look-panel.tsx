import { SlidersHorizontal } from "lucide-react";
import { Popover } from "radix-ui";
import { Hint, IconButton } from "~/components/common/button";
import { Slider } from "~/components/common/slider";
import { SidePanel } from "~/components/common/side-panel";
import { TickBox } from "~/components/common/tick-box";
import { useShortcutText } from "../shortcuts/use-shortcut-keys";
import { useDesk } from "../state/desk-context";

const SHOWN = [
  { name: "guides", text: "Thirds, centre and eye line", id: "guides" },
  { name: "subjects", text: "Subjects", id: "subjects" },
  { name: "trail", text: "Trail of the window's centre", id: null },
  { name: "safeArea", text: "Safe area", id: null },
] as const;
const LEAST_SIZE = 40;

/** What is shown on the picture, how dark it is outside the window, and how large it is. */
export function PictureLookPanel() {
  const { pictureLook, setPictureLook } = useDesk();
  const keysOf = useShortcutText();
  return (
    <Popover.Root>
      <Hint text="What is shown on the picture, its shade and its size">
        <Popover.Trigger asChild>
          <IconButton label="Picture">
            <SlidersHorizontal className="size-4" aria-hidden />
          </IconButton>
        </Popover.Trigger>
      </Hint>
      <SidePanel title="Picture" width="w-72">
        <div className="flex flex-col gap-2">
          {SHOWN.map(({ name, text, id }) => (
            <label key={name} className="flex items-center gap-2 text-sm">
              <TickBox checked={pictureLook[name]} onChange={(shows) => setPictureLook({ [name]: shows })} />
              {text}
              {id && <kbd className="ml-auto rounded-sm bg-well px-1.5 py-0.5 font-mono text-xs">{keysOf(id)}</kbd>}
            </label>
          ))}
        </div>
        <Slider
          label="Shade outside the window"
          value={pictureLook.shade}
          max={100}
          ends={["open", "hidden"]}
          heading={(value) => <Heading text="Outside the window" value={`${value} %`} />}
          onChange={(shade) => setPictureLook({ shade })}
        />
        <Slider
          label="Size of the picture"
          value={pictureLook.size - LEAST_SIZE}
          max={100 - LEAST_SIZE}
          ends={["smaller", "all the room"]}
          heading={(value) => <Heading text="Size" value={`${value + LEAST_SIZE} %`} />}
          onChange={(value) => setPictureLook({ size: value + LEAST_SIZE })}
        />
      </SidePanel>
    </Popover.Root>
  );
}

const Heading = ({ text, value }: { text: string; value: string }) => (
  <div className="flex items-baseline justify-between gap-2 text-xs text-soft">
    <span>{text}</span>
    <span>{value}</span>
  </div>
);
