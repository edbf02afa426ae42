/** Layers as a file (docs/formats.md): what lies above a picture, brought in on the command line. */
import { z } from "zod";
import { assertNever } from "../assert-never";
import {
  type Layer,
  MOST_LAYERS,
  newBar,
  newPicture,
  newText,
  PictureLayer,
  ShapeLayer,
  TextLayer,
} from "../composition/layers/layer";
import type { Picture } from "../composition/picture";
import { SafeArea } from "../composition/layers/safe-area";

/** The text is no list of layers; the message says what is wrong with it. */
export class LayersError extends Error {
  override name = "LayersError";
}

/** What is left out of a layer is as in one that is added on the desk. */
const LayerInFile = z.discriminatedUnion("kind", [
  TextLayer.partial().required({ kind: true, text: true }),
  ShapeLayer.partial().required({ kind: true }),
  PictureLayer.omit({ picture: true })
    .partial()
    .required({ kind: true })
    .extend({
      /** Where the picture is, from the list's own folder. */
      file: z.string().min(1),
    }),
]);

const LayersFile = z.object({
  format: z.literal("glad-pan/layers"),
  version: z.literal(1),
  safeArea: SafeArea.optional(),
  /** From back to front. */
  layers: z.array(LayerInFile).max(MOST_LAYERS),
});

export interface ReadLayers {
  /** The picture files that are spoken of. */
  files: string[];
  /** The layers, with the pictures that are in these files. */
  layersWith: (pictures: ReadonlyMap<string, Picture>) => Layer[];
  safeArea: SafeArea | null;
}

function layerOf(layer: z.infer<typeof LayerInFile>, id: string, pictures: ReadonlyMap<string, Picture>): Layer {
  switch (layer.kind) {
    case "text":
      return { ...newText(id, layer.text), ...layer, id };
    case "shape":
      return { ...newBar(id), ...layer, id };
    case "picture": {
      const { file, ...rest } = layer;
      return { ...newPicture(id, pictures.get(file)!), ...rest, id };
    }
    default:
      return assertNever(layer);
  }
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
  return {
    files: [...new Set(layers.flatMap((layer) => (layer.kind === "picture" ? [layer.file] : [])))],
    layersWith: (pictures) => layers.map((layer, i) => layerOf(layer, `layer-${i + 1}`, pictures)),
    safeArea: safeArea ?? null,
  };
}
