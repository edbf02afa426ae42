/** Layers as a file (docs/formats.md): what lies above a picture, brought in on the command line. */
import { z } from "zod";
import { type Layer, MOST_LAYERS, newBar, newText, ShapeLayer, TextLayer } from "../composition/layers/layer";
import { SafeArea } from "../composition/layers/safe-area";

/** The text is no list of layers; the message says what is wrong with it. */
export class LayersError extends Error {
  override name = "LayersError";
}

/** What is left out of a layer is as in one that is added on the desk. */
const LayerInFile = z.discriminatedUnion("kind", [
  TextLayer.partial().required({ kind: true, text: true }),
  ShapeLayer.partial().required({ kind: true }),
]);

const LayersFile = z.object({
  format: z.literal("glad-pan/layers"),
  version: z.literal(1),
  safeArea: SafeArea.optional(),
  /** From back to front. */
  layers: z.array(LayerInFile).max(MOST_LAYERS),
});

export interface ReadLayers {
  layers: Layer[];
  safeArea: SafeArea | null;
}

/** @throws LayersError */
export function readLayers(text: string): ReadLayers {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new LayersError("this is not JSON");
  }
  const parsed = LayersFile.safeParse(json);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw new LayersError(`${issue!.path.join(".") || "the file"}: ${issue!.message}`);
  }
  const { layers, safeArea } = parsed.data;
  const whole = layers.map((layer, i): Layer => {
    const id = `layer-${i + 1}`;
    return layer.kind === "text" ? { ...newText(id, layer.text), ...layer, id } : { ...newBar(id), ...layer, id };
  });
  return { layers: whole, safeArea: safeArea ?? null };
}
