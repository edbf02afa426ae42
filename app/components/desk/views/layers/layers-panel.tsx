import { RectangleHorizontal, Square, Type } from "lucide-react";
import { Button } from "~/components/common/button";
import { newBar, newBox, newPicture, newText } from "~/core/composition/layers/layer";
import { useDesk } from "../../hooks/use-desk";
import { PicturePicker } from "../fields/picture-picker";
import { LayerControls } from "./layer-controls";
import { LayerList } from "./layer-list";
import { SafeAreaControls } from "./safe-area-controls";
import { layersTexts } from "~/texts/layers";

const t = layersTexts.layersPanel;

/** Titles, pictures and shapes above the picture: added, ordered, and edited. */
export function LayersPanel() {
  const { version, layerId } = useDesk("version", "layerId");
  const { layerCommands: edits } = useDesk("layerCommands");
  const selected = version.layers.find(({ id }) => id === layerId);
  return (
    <section aria-label={t.layers} className="flex flex-col gap-4">
      <div className="grid grid-cols-2 gap-2">
        <Button onClick={() => edits.add((id) => newText(id, t.yourText))}>
          <Type className="size-3.5" aria-hidden /> {t.text}
        </Button>
        <Button onClick={() => edits.add(newBar)}>
          <RectangleHorizontal className="size-3.5" aria-hidden /> {t.bar}
        </Button>
        <Button onClick={() => edits.add(newBox)}>
          <Square className="size-3.5" aria-hidden /> {t.box}
        </Button>
        <PicturePicker text={t.picture} onPicked={(picture) => edits.add((id) => newPicture(id, picture))} />
      </div>
      {version.layers.length === 0 ? (
        <p className="text-xs text-soft">{t.emptyHint}</p>
      ) : (
        <LayerList layers={version.layers} />
      )}
      {selected && <LayerControls key={selected.id} layer={selected} />}
      <SafeAreaControls />
    </section>
  );
}
