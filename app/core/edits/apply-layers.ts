import { assertNever } from "../basics/assert-never";
import type { Layer } from "../composition/layers/layer";
import { Refusal } from "../basics/refusal";
import type { SingleCommand } from "./command";
import type { FilmState } from "../version/film-state";
import { requireVersion, withVersion } from "../version/find";
import { refusalsTexts } from "../../texts/refusals";

const t = refusalsTexts.applyLayers;

type LayerCommand = Extract<SingleCommand, { type: "put-layer" | "remove-layer" | "move-layer" }>;

function placeOf(layers: readonly Layer[], id: string): number {
  const place = layers.findIndex((layer) => layer.id === id);
  if (place < 0) throw new Refusal(t.layerGone);
  return place;
}

function changed(layers: readonly Layer[], command: LayerCommand): Layer[] {
  switch (command.type) {
    case "put-layer": {
      const { layer } = command;
      const isThere = layers.some(({ id }) => id === layer.id);
      return isThere ? layers.map((other) => (other.id === layer.id ? layer : other)) : [...layers, layer];
    }
    case "remove-layer":
      return layers.toSpliced(placeOf(layers, command.layerId), 1);
    case "move-layer": {
      const from = placeOf(layers, command.layerId);
      const layer = layers[from]!;
      return layers.toSpliced(from, 1).toSpliced(command.to, 0, layer);
    }
    default:
      return assertNever(command);
  }
}

/** @throws Refusal if the version or the layer does not exist */
export function applyToLayers(state: FilmState, command: LayerCommand): FilmState {
  const version = requireVersion(state, command.versionId);
  return withVersion(state, { ...version, layers: changed(version.layers, command) });
}
