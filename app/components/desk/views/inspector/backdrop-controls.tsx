import { useState } from "react";
import { ChoiceBar } from "~/components/common/choice-bar";
import { assertNever } from "~/core/basics/assert-never";
import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import { type Backdrop, MOST_BACKDROP_ZOOM, USUAL_BACKDROP } from "~/core/composition/backdrop";
import { USUAL_PLAYBACK } from "~/core/composition/picture";
import { ColourField } from "../fields/colour-field";
import { PercentSlider } from "~/components/common/percent-slider";
import { PicturePicker } from "../fields/picture-picker";
import { PlaybackControls } from "../fields/playback-controls";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.backdropControls;

const BACKDROPS: SelectItem[] = [
  { value: "blur", text: t.blurredPicture, hint: t.blurHint },
  { value: "mirror", text: t.reflected, hint: t.reflectedHint },
  { value: "colour", text: t.oneColour },
  { value: "gradient", text: t.twoColours, hint: t.gradientHint },
  { value: "picture", text: t.yourPictureOrFilm, hint: t.ownFileHint },
];
/** First backdrop of each kind. */
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

/** Backdrop of a film that does not fill its frame. */
export function BackdropControls({ backdrop, onChange }: BackdropControlsProps) {
  const [isPicking, setPicking] = useState(false);
  return (
    <>
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">{t.backdrop}</span>
        <SelectMenu
          label={t.backdrop}
          placeholder={t.mixed}
          items={BACKDROPS}
          value={backdrop.kind}
          onChange={(kind) => (kind === "picture" ? setPicking(true) : onChange(FIRST[kind]!))}
        />
      </div>
      {isPicking && backdrop.kind !== "picture" && (
        <div className="flex flex-wrap gap-2">
          <PicturePicker
            text={t.selectFile}
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
            label={t.blur}
            value={backdrop.strength}
            ends={[t.sharper, t.softer]}
            onChange={(strength) => onChange({ ...backdrop, strength })}
          />
          <PercentSlider
            label={t.darkness}
            value={backdrop.darkness}
            ends={[t.asItIs, t.black]}
            onChange={(darkness) => onChange({ ...backdrop, darkness })}
          />
          <PercentSlider
            label={t.zoomOfTheBackdrop}
            value={Math.round((100 * (backdrop.zoom - 1)) / (MOST_BACKDROP_ZOOM - 1))}
            ends={[t.allOfIt, t.itsMiddle]}
            onChange={(percent) => onChange({ ...backdrop, zoom: 1 + (percent / 100) * (MOST_BACKDROP_ZOOM - 1) })}
          />
        </>
      );
    case "mirror":
      return (
        <PercentSlider
          label={t.darkness}
          value={backdrop.darkness}
          ends={[t.asItIs, t.black]}
          onChange={(darkness) => onChange({ ...backdrop, darkness })}
        />
      );
    case "colour":
      return (
        <ColourField
          label={t.colour}
          colour={backdrop.colour}
          onChange={(colour) => onChange({ ...backdrop, colour })}
        />
      );
    case "gradient":
      return (
        <div className="grid grid-cols-2 gap-2">
          <ColourField label={t.top} colour={backdrop.top} onChange={(top) => onChange({ ...backdrop, top })} />
          <ColourField label={t.bottom} colour={backdrop.foot} onChange={(foot) => onChange({ ...backdrop, foot })} />
        </div>
      );
    case "picture":
      return <PictureBackdrop backdrop={backdrop} onChange={onChange} />;
    default:
      return assertNever(backdrop);
  }
}

const FITS = [
  { value: "fill", name: t.fill, hint: t.fillHint },
  { value: "whole", name: t.whole, hint: t.wholeHint },
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
        label={t.fitLabel}
        choices={FITS}
        value={backdrop.fit}
        onChange={(fit) => onChange({ ...backdrop, fit })}
        className="grid-cols-2"
      />
      {backdrop.fit === "whole" && (
        <ColourField
          label={t.colour}
          colour={backdrop.colour}
          onChange={(colour) => onChange({ ...backdrop, colour })}
        />
      )}
      <PlaybackControls
        picture={backdrop.picture}
        playback={backdrop.playback}
        onChange={(playback) => onChange({ ...backdrop, playback })}
      />
      <div className="flex flex-wrap gap-2">
        <PicturePicker text={t.replace} onPicked={(picture) => onChange({ ...backdrop, picture })} />
      </div>
    </>
  );
}
