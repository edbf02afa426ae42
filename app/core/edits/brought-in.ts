import type { Backdrop } from "../composition/backdrop";
import type { OwnFont } from "../composition/layers/own-font";
import type { Picture } from "../composition/picture";
import type { VersionState } from "./film-state";

/** What of a version may show what an editor has brought in. */
export type Brought = Pick<VersionState, "layers" | "usual"> & Partial<Pick<VersionState, "shots">>;

const inBackdrop = (backdrop: Backdrop | undefined): Picture[] =>
  backdrop?.kind === "picture" ? [backdrop.picture] : [];

/** The pictures that a version may show: above the film, and behind it. */
export const picturesIn = ({ layers, usual, shots = new Map() }: Brought): Picture[] => [
  ...layers.flatMap((layer) => (layer.kind === "picture" ? [layer.picture] : [])),
  ...[usual, ...shots.values()].flatMap(({ backdrop }) => inBackdrop(backdrop)),
];

/** The fonts of its texts. */
export const fontsIn = ({ layers }: Pick<Brought, "layers">): OwnFont[] =>
  layers.flatMap((layer) => (layer.kind === "text" && layer.font ? [layer.font] : []));
