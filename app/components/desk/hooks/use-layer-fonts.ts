import { useEffect, useState } from "react";
import { fontOf } from "~/core/composition/layers/font-families";
import type { Layer } from "~/core/composition/layers/layer";
import { type OwnFont, ownFamily } from "~/core/composition/layers/own-font";
import { forgetDrawnLayers } from "../frames/draw-layers";

const known = new Set<string>();

/** Registers one of the editor's own fonts with the page. */
function knowFont({ id }: OwnFont): void {
  if (known.has(id)) return;
  known.add(id);
  document.fonts.add(new FontFace(ownFamily(id), `url(/own-files/${id})`));
}

/**
 * Loads the fonts of layers and returns the layers, as a new list when fonts have loaded, since earlier drawings lack them.
 */
export function useLayerFonts(layers: readonly Layer[]): readonly Layer[] {
  const [ready, setReady] = useState(layers);
  useEffect(() => {
    for (const layer of layers) if (layer.kind === "text" && layer.font) knowFont(layer.font);
    const wanted = layers.flatMap((layer) =>
      layer.kind === "text" ? { font: fontOf(layer, 20), text: layer.text } : [],
    );
    const missing = wanted.filter(({ font, text }) => !document.fonts.check(font, text));
    if (missing.length === 0) return;
    let isLeft = false;
    // A font that does not load leaves its characters to the fallback fonts.
    void Promise.allSettled(missing.map(({ font, text }) => document.fonts.load(font, text))).then(() => {
      if (isLeft) return;
      forgetDrawnLayers(layers);
      setReady([...layers]);
    });
    return () => {
      isLeft = true;
    };
  }, [layers]);
  const isOf = ready.length === layers.length && ready.every((layer, i) => layer === layers[i]);
  return isOf ? ready : layers;
}
