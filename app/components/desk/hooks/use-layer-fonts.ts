import { useEffect, useState } from "react";
import { fontOf } from "~/core/composition/layers/font-families";
import type { Layer } from "~/core/composition/layers/layer";
import { type OwnFont, ownFamily } from "~/core/composition/layers/own-font";
import { forgetDrawnLayers } from "../frames/draw-layers";

const known = new Set<string>();

/** Tells the page where a font of the editor's own is, so that it can be loaded. */
function knowFont({ id }: OwnFont): void {
  if (known.has(id)) return;
  known.add(id);
  document.fonts.add(new FontFace(ownFamily(id), `url(/own-files/${id})`));
}

/** Loads the fonts of layers, and gives these; another list when fonts have come, since what was drawn before lacks them. */
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
    // A font that does not come leaves the letters to the ones that stand in for it.
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
