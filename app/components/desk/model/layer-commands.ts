import { nanoid } from "nanoid";
import type { Layer } from "~/core/composition/layers/layer";
import type { SingleCommand } from "~/core/edits/command";
import { layersTexts } from "~/texts/layers";
import type { DeskPort } from "./desk-model";
import { deskSelector } from "./desk-selector";

const t = layersTexts.layerCommands;

/** What can be done to the layers of the version on the desk. */
export interface LayerCommands {
  /** Adds what is made with a new id, and selects it. */
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
