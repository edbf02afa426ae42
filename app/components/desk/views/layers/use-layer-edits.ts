import { nanoid } from "nanoid";
import { toast } from "sonner";
import type { Layer } from "~/core/composition/layers/layer";
import type { SingleCommand } from "~/core/edits/command";
import { useDesk } from "../../hooks/desk-context";
import { layersTexts } from "~/texts/layers";

const t = layersTexts.useLayerEdits;

/** What can be done to the layers of the version on the desk. */
export interface LayerEdits {
  /** Adds what is made with a new id, and chooses it. */
  add: (make: (id: string) => Layer) => void;
  put: (layer: Layer) => void;
  /** Shows what a layer would be; null for as it is. */
  preview: (layer: Layer | null) => void;
  remove: (layer: Layer) => void;
  /** Gives a layer another place in the order, from behind. */
  move: (layer: Layer, to: number) => void;
  /** Gives a layer to the other versions, in the place of one that was given before; null without others. */
  copyToOthers: ((layer: Layer) => void) | null;
}

export function useLayerEdits(): LayerEdits {
  const { state, version, edits, chooseLayer } = useDesk();
  const versionId = version.id;
  const others = state.versions.filter(({ id }) => id !== versionId);
  const put = (layer: Layer): SingleCommand => ({ type: "put-layer", versionId, layer });
  return {
    add: (make) => {
      const layer = make(nanoid(10));
      edits.send(put(layer));
      chooseLayer(layer.id);
    },
    put: (layer) => edits.send(put(layer)),
    preview: (layer) => edits.preview(layer && put(layer)),
    remove: (layer) => {
      edits.send({ type: "remove-layer", versionId, layerId: layer.id });
      chooseLayer(null);
    },
    move: (layer, to) => edits.send({ type: "move-layer", versionId, layerId: layer.id, to }),
    copyToOthers:
      others.length === 0
        ? null
        : (layer) => {
            const commands = others.map(({ id }) => ({ type: "put-layer" as const, versionId: id, layer }));
            edits.send({ type: "batch", commands });
            toast(t.copiedTo(others.map(({ name }) => name).join(", ")));
          },
  };
}
