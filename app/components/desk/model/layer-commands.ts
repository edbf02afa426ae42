import { nanoid } from "nanoid";
import type { Layer } from "~/core/composition/layers/layer";
import type { SingleCommand } from "~/core/edits/command";
import { layersTexts } from "~/texts/layers";
import type { DeskPort } from "./desk-model";
import { deskSelector } from "./desk-selector";

const t = layersTexts.layerCommands;

/** Commands on the layers of the version. */
export interface LayerCommands {
  /** Adds a layer with a new id, and selects it. */
  add: (make: (id: string) => Layer) => void;
  put: (layer: Layer) => void;
  /** Previews a layer; null ends the preview. */
  preview: (layer: Layer | null) => void;
  remove: (layer: Layer) => void;
  /** Moves a layer in the stacking order, counted from the back. */
  move: (layer: Layer, to: number) => void;
  /** Copies a layer to the other versions, replacing an earlier copy; null without other versions. */
  copyToOthers: ((layer: Layer) => void) | null;
}

export function layerCommands({ get, put: select }: DeskPort) {
  const putting = (layer: Layer, versionId = get().version.id): SingleCommand => ({
    type: "put-layer",
    versionId,
    layer,
  });
  const put = (layer: Layer) => get().edits.send(putting(layer));
  const commands: Omit<LayerCommands, "copyToOthers"> = {
    add: (make) => {
      const layer = make(nanoid(10));
      put(layer);
      select({ layerId: layer.id });
    },
    put,
    preview: (layer) => get().edits.preview(layer && putting(layer)),
    remove: (layer) => {
      const { edits, version } = get();
      edits.send({ type: "remove-layer", versionId: version.id, layerId: layer.id });
      select({ layerId: null });
    },
    move: (layer, to) => {
      const { edits, version } = get();
      edits.send({ type: "move-layer", versionId: version.id, layerId: layer.id, to });
    },
  };
  const copyToOthers = (layer: Layer) => {
    const { state, version, edits, tell } = get();
    const others = state.versions.filter(({ id }) => id !== version.id);
    edits.send({ type: "batch", commands: others.map(({ id }) => putting(layer, id)) });
    tell(t.copiedTo(others.map(({ name }) => name).join(", ")));
  };
  return deskSelector([(desk) => desk.state.versions.length > 1], (hasOthers): LayerCommands => ({
    ...commands,
    copyToOthers: hasOthers ? copyToOthers : null,
  }));
}
