import { RectangleHorizontal, Square, Type } from "lucide-react";
import { Button } from "~/components/common/button";
import { newBar, newBox, newPicture, newText } from "~/core/composition/layers/layer";
import { useDesk } from "../state/desk-context";
import { PicturePicker } from "../inspector/picture-picker";
import { LayerControls } from "./layer-controls";
import { LayerList } from "./layer-list";
import { SafeAreaControls } from "./safe-area-controls";
import { useLayerEdits } from "./use-layer-edits";

/** Titles, pictures and shapes above the picture: added, ordered, and set. */
export function LayersPanel() {
  const { version, layerId } = useDesk();
  const edits = useLayerEdits();
  const chosen = version.layers.find(({ id }) => id === layerId);
  return (
    <section aria-label="Layers" className="flex flex-col gap-4">
      <div className="grid grid-cols-2 gap-2">
        <Button onClick={() => edits.add((id) => newText(id, "Your text"))}>
          <Type className="size-3.5" aria-hidden /> Text
        </Button>
        <Button onClick={() => edits.add(newBar)}>
          <RectangleHorizontal className="size-3.5" aria-hidden /> Bar
        </Button>
        <Button onClick={() => edits.add(newBox)}>
          <Square className="size-3.5" aria-hidden /> Box
        </Button>
        <PicturePicker text="Picture" onPicked={(picture) => edits.add((id) => newPicture(id, picture))} />
      </div>
      {version.layers.length === 0 ? (
        <p className="text-xs text-soft">
          A title, a name, a line that calls for something: it lies above the picture in all of the film, or in a
          stretch of it.
        </p>
      ) : (
        <LayerList layers={version.layers} />
      )}
      {chosen && <LayerControls key={chosen.id} layer={chosen} />}
      <SafeAreaControls />
    </section>
  );
}
