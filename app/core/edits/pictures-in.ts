import type { Backdrop } from "../composition/backdrop";
import type { Picture } from "../composition/picture";
import type { VersionState } from "./film-state";

const inBackdrop = (backdrop: Backdrop | undefined): Picture[] =>
  backdrop?.kind === "picture" ? [backdrop.picture] : [];

/** The pictures of the editor's own that a version may show: above the film, and behind it. */
export const picturesIn = ({
  layers,
  usual,
  shots = new Map(),
}: Pick<VersionState, "layers" | "usual"> & Partial<Pick<VersionState, "shots">>): Picture[] => [
  ...layers.flatMap((layer) => (layer.kind === "picture" ? [layer.picture] : [])),
  ...[usual, ...shots.values()].flatMap(({ backdrop }) => inBackdrop(backdrop)),
];
