import { Button } from "~/components/common/button";
import { NumberField } from "~/components/common/number-field";
import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import { type Blend, type Layer, MOST_PLACE } from "~/core/composition/layers/layer";
import { ColourField } from "../fields/colour-field";
import { PercentSlider } from "~/components/common/percent-slider";
import { PicturePicker } from "../fields/picture-picker";
import { PlaybackControls } from "../fields/playback-controls";
import { groundOf, placeLayer } from "~/core/composition/layers/draw-layer";
import { safeBox } from "~/core/composition/layers/safe-area";
import { boxContains } from "~/core/geometry/box";
import { useDesk } from "../../hooks/use-desk";
import { measuringPen } from "./measuring-pen";
import { LayerTime } from "./layer-time";
import { TextControls } from "./text-controls";
import { layersTexts } from "~/texts/layers";

const t = layersTexts.layerControls;

const BLEND_ITEMS: (SelectItem & { value: Blend })[] = [
  { value: "normal", text: t.normal, hint: t.coversThePicture },
  { value: "multiply", text: t.multiply, hint: t.multiplyHint },
  { value: "screen", text: t.screen, hint: t.screenHint },
];

const PLACES = [
  { axis: "x", label: t.across, hint: t.flushLeftAndRight },
  { axis: "y", label: t.down, hint: t.flushTopAndBottom },
] as const;

/** All settings of a layer. */
export function LayerControls({ layer }: { layer: Layer }) {
  const { version } = useDesk("version");
  const { put, copyToOthers } = useDesk("layerCommands").layerCommands;
  const { safeArea } = version;
  const ground = groundOf(version);
  // Without a safe area, nothing is known to be covered.
  const reachesOut =
    safeArea !== null && !boxContains(safeBox(safeArea, version), placeLayer(layer, ground, measuringPen()).box, 1);
  return (
    <section aria-label={t.selectedLayer} className="flex flex-col gap-3 border-t border-line pt-3">
      {layer.kind === "text" && <TextControls layer={layer} onChange={put} />}
      {layer.kind === "shape" && (
        <ColourField label={t.colour} colour={layer.colour} onChange={(colour) => put({ ...layer, colour })} />
      )}
      {layer.kind === "picture" && (
        <>
          <PlaybackControls
            picture={layer.picture}
            playback={layer.playback}
            onChange={(playback) => put({ ...layer, playback })}
          />
          <div className="flex flex-wrap gap-2">
            <PicturePicker text={t.replace} onPicked={(picture) => put({ ...layer, picture })} />
          </div>
        </>
      )}
      {layer.kind !== "text" && (
        <PercentSlider
          label={t.corners}
          value={layer.corner}
          ends={[t.square, t.round]}
          onChange={(corner) => put({ ...layer, corner })}
        />
      )}
      {reachesOut && (
        <p role="alert" className="text-xs text-warn">
          {t.thisExtendsBeyondTheSafe}
        </p>
      )}
      <div className="grid grid-cols-2 gap-2">
        {PLACES.map(({ axis, label, hint }) => (
          <NumberField
            key={axis}
            label={label}
            unit="%"
            hint={hint}
            canBeNegative
            rest={50}
            value={100 * layer[axis]}
            onCommit={(percent) =>
              put({ ...layer, [axis]: Math.max(-MOST_PLACE, Math.min(MOST_PLACE, percent / 100)) })
            }
          />
        ))}
      </div>
      <PercentSlider
        label={t.opacity}
        value={layer.opacity}
        ends={[t.invisible, t.solid]}
        onChange={(opacity) => put({ ...layer, opacity })}
      />
      <PercentSlider
        label={t.softness}
        value={layer.softness}
        ends={[t.sharp, t.soft]}
        onChange={(softness) => put({ ...layer, softness })}
      />
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">{t.blending}</span>
        <SelectMenu
          label={t.blending}
          placeholder=""
          items={BLEND_ITEMS}
          value={layer.blend}
          onChange={(blend) => put({ ...layer, blend: blend as Blend })}
        />
      </div>
      <LayerTime layer={layer} onChange={put} />
      {copyToOthers && <Button onClick={() => copyToOthers(layer)}>{t.copyToVersions}</Button>}
    </section>
  );
}
