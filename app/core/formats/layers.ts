/** Layers as a file (docs/formats.md), for the command line. */
import { z } from "zod";
import { assertNever } from "../basics/assert-never";
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
import type { OwnFont } from "../composition/layers/own-font";
import type { Picture } from "../composition/picture";
import { SafeArea } from "../composition/layers/safe-area";

/** The text is no list of layers; the message says what is wrong with it. */
export class LayersError extends Error {
  override name = "LayersError";
}

/** Missing fields of a layer are as in a new one on the desk. */
const LayerInFile = z.discriminatedUnion("kind", [
  TextLayer.omit({ font: true })
    .partial()
    .required({ kind: true, text: true })
    .extend({
      /** Path of a font file, relative to the list's folder. */
      fontFile: z.string().min(1).optional(),
    }),
  ShapeLayer.partial().required({ kind: true }),
  PictureLayer.omit({ picture: true })
    .partial()
    .required({ kind: true })
    .extend({
      /** Path of the picture, relative to the list's folder. */
      file: z.string().min(1),
    }),
]);

export const LayersFile = z.object({
  format: z.literal("glad-pan/layers"),
  version: z.literal(1),
  safeArea: SafeArea.optional(),
  /** From back to front. */
  layers: z.array(LayerInFile).max(MOST_LAYERS),
});

/** Stored files, by the names that the list uses. */
export interface OwnByFile {
  pictures: ReadonlyMap<string, Picture>;
  fonts: ReadonlyMap<string, OwnFont>;
}

export interface ReadLayers {
  /** The files that the list names. */
  files: { pictures: string[]; fonts: string[] };
  /** The layers, with these stored files. */
  layersWith: (own: OwnByFile) => Layer[];
  safeArea: SafeArea | null;
}

const withFont = <Said extends { fontFile?: string | undefined }>({ fontFile, ...rest }: Said, { fonts }: OwnByFile) =>
  fontFile === undefined ? rest : { ...rest, font: fonts.get(fontFile)! };

function layerOf(layer: z.infer<typeof LayerInFile>, id: string, own: OwnByFile): Layer {
  switch (layer.kind) {
    case "text":
      return { ...newText(id, layer.text), ...withFont(layer, own), id };
    case "shape":
      return { ...newBar(id), ...layer, id };
    case "picture": {
      const { file, ...rest } = layer;
      return { ...newPicture(id, own.pictures.get(file)!), ...rest, id };
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
    files: {
      pictures: [...new Set(layers.flatMap((layer) => (layer.kind === "picture" ? [layer.file] : [])))],
      fonts: [...new Set(layers.flatMap((layer) => (layer.kind === "text" ? (layer.fontFile ?? []) : [])))],
    },
    layersWith: (own) => layers.map((layer, i) => layerOf(layer, `layer-${i + 1}`, own)),
    safeArea: safeArea ?? null,
  };
}
