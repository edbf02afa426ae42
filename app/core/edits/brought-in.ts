import type { Backdrop } from "../composition/backdrop";
import type { Layer } from "../composition/layers/layer";
import type { Layout } from "../composition/layout";
import type { OwnFont } from "../composition/layers/own-font";
import type { Picture } from "../composition/picture";
import type { VersionState } from "../version/film-state";

const inLayout = (layout: Layout | undefined): Picture[] =>
  layout?.kind === "stack" ? layout.places.flatMap(({ own }) => own?.picture ?? []) : [];

/** The parts of a version that may show the editor's own files. */
export type Brought = { layers: readonly Layer[] } & Pick<VersionState, "usual"> & Partial<Pick<VersionState, "shots">>;

const inBackdrop = (backdrop: Backdrop | undefined): Picture[] =>
  backdrop?.kind === "picture" ? [backdrop.picture] : [];

/** The pictures that a version may show: above the film, behind it, and beside it. */
export const picturesIn = ({ layers, usual, shots = new Map() }: Brought): Picture[] => [
  ...layers.flatMap((layer) => (layer.kind === "picture" ? [layer.picture] : [])),
  ...[usual, ...shots.values()].flatMap(({ backdrop, layout }) => [...inBackdrop(backdrop), ...inLayout(layout)]),
];

/** The fonts of its texts. */
export const fontsIn = ({ layers }: Pick<Brought, "layers">): OwnFont[] =>
  layers.flatMap((layer) => (layer.kind === "text" && layer.font ? [layer.font] : []));
