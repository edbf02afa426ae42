import { useState } from "react";
import { ChoiceBar } from "~/components/common/choice-bar";
import { assertNever } from "~/core/assert-never";
import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import { type Backdrop, MOST_BACKDROP_ZOOM, USUAL_BACKDROP } from "~/core/composition/backdrop";
import { USUAL_PLAYBACK } from "~/core/composition/picture";
import { ColourField } from "./colour-field";
import { PercentSlider } from "./percent-slider";
import { PicturePicker } from "./picture-picker";
import { PlaybackControls } from "./playback-controls";

const BACKDROPS: SelectItem[] = [
  { value: "blur", text: "Blurred picture", hint: "The picture itself, out of focus" },
  { value: "mirror", text: "Mirrored edges", hint: "The picture goes on beyond its borders" },
  { value: "colour", text: "One colour" },
  { value: "gradient", text: "Two colours", hint: "From the top of the frame to the bottom" },
  { value: "picture", text: "Your picture or film", hint: "A film loops without sound" },
];
/** What a backdrop of each kind is to begin with. */
const FIRST: Record<string, Backdrop> = {
  blur: USUAL_BACKDROP,
  mirror: { kind: "mirror", darkness: 35 },
  colour: { kind: "colour", colour: "#20242c" },
  gradient: { kind: "gradient", top: "#2c3440", foot: "#101216" },
};

interface BackdropControlsProps {
  backdrop: Backdrop;
  onChange: (backdrop: Backdrop) => void;
}

/** What lies behind a film that does not fill its frame. */
export function BackdropControls({ backdrop, onChange }: BackdropControlsProps) {
  const [isPicking, setPicking] = useState(false);
  return (
    <>
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">Backdrop</span>
        <SelectMenu
          label="Backdrop"
          placeholder="Mixed"
          items={BACKDROPS}
          value={backdrop.kind}
          onChange={(kind) => (kind === "picture" ? setPicking(true) : onChange(FIRST[kind]!))}
        />
      </div>
      {isPicking && backdrop.kind !== "picture" && (
        <div className="flex flex-wrap gap-2">
          <PicturePicker
            text="Choose a file"
            onPicked={(picture) => {
              setPicking(false);
              onChange({ kind: "picture", picture, fit: "fill", colour: "#101216", playback: USUAL_PLAYBACK });
            }}
          />
        </div>
      )}
      <Details backdrop={backdrop} onChange={onChange} />
    </>
  );
}

function Details({ backdrop, onChange }: BackdropControlsProps) {
  switch (backdrop.kind) {
    case "blur":
      return (
        <>
          <PercentSlider
            label="Blur"
            value={backdrop.strength}
            ends={["sharper", "softer"]}
            onChange={(strength) => onChange({ ...backdrop, strength })}
          />
          <PercentSlider
            label="Darkness"
            value={backdrop.darkness}
            ends={["as it is", "black"]}
            onChange={(darkness) => onChange({ ...backdrop, darkness })}
          />
          <PercentSlider
            label="Zoom of the backdrop"
            value={Math.round((100 * (backdrop.zoom - 1)) / (MOST_BACKDROP_ZOOM - 1))}
            ends={["all of it", "its middle"]}
            onChange={(percent) => onChange({ ...backdrop, zoom: 1 + (percent / 100) * (MOST_BACKDROP_ZOOM - 1) })}
          />
        </>
      );
    case "mirror":
      return (
        <PercentSlider
          label="Darkness"
          value={backdrop.darkness}
          ends={["as it is", "black"]}
          onChange={(darkness) => onChange({ ...backdrop, darkness })}
        />
      );
    case "colour":
      return (
        <ColourField label="Colour" colour={backdrop.colour} onChange={(colour) => onChange({ ...backdrop, colour })} />
      );
    case "gradient":
      return (
        <div className="grid grid-cols-2 gap-2">
          <ColourField label="Top" colour={backdrop.top} onChange={(top) => onChange({ ...backdrop, top })} />
          <ColourField label="Bottom" colour={backdrop.foot} onChange={(foot) => onChange({ ...backdrop, foot })} />
        </div>
      );
    case "picture":
      return <PictureBackdrop backdrop={backdrop} onChange={onChange} />;
    default:
      return assertNever(backdrop);
  }
}

const FITS = [
  { value: "fill", name: "Fill", hint: "Crops the picture to fill the frame" },
  { value: "whole", name: "Whole", hint: "The whole picture on a colour" },
] as const;

interface PictureBackdropProps {
  backdrop: Extract<Backdrop, { kind: "picture" }>;
  onChange: (backdrop: Backdrop) => void;
}

function PictureBackdrop({ backdrop, onChange }: PictureBackdropProps) {
  return (
    <>
      <span className="truncate text-xs text-soft">{backdrop.picture.name}</span>
      <ChoiceBar
        label="How the picture fills the frame"
        choices={FITS}
        value={backdrop.fit}
        onChange={(fit) => onChange({ ...backdrop, fit })}
        className="grid-cols-2"
      />
      {backdrop.fit === "whole" && (
        <ColourField label="Colour" colour={backdrop.colour} onChange={(colour) => onChange({ ...backdrop, colour })} />
      )}
      <PlaybackControls
        picture={backdrop.picture}
        playback={backdrop.playback}
        onChange={(playback) => onChange({ ...backdrop, playback })}
      />
      <div className="flex flex-wrap gap-2">
        <PicturePicker text="Replace" onPicked={(picture) => onChange({ ...backdrop, picture })} />
      </div>
    </>
  );
}
