import { useEffect } from "react";
import type { Size } from "~/core/geometry/box";
import { useShotHere } from "../../hooks/use-player";
import { ComposedCanvas } from "../../frames/composed-canvas";
import { useDesk, useDeskStore } from "../../hooks/use-desk";
import { useShots } from "../../hooks/use-shots";
import { useShownAt } from "../../hooks/use-shown-at";
import { centreShown, type Side } from "../../model/comparison";

interface SideCanvasProps {
  side: Side;
  /** Size on the screen. */
  size: Size;
  className?: string;
}

/** The other side of the comparison, at the frame on screen. */
export function SideCanvas({ side, size, className }: SideCanvasProps) {
  const { framedFrom } = side;
  return framedFrom ? (
    <FramedSide side={side} framedFrom={framedFrom} size={size} className={className} />
  ) : (
    <CentreSide side={side} size={size} className={className} />
  );
}

function CentreSide({ side, ...rest }: SideCanvasProps) {
  const { shots, film } = useDesk("shots", "film");
  const { size: frame, name } = side;
  const shownAt = centreShown(shots, film.picture, frame);
  return <ComposedCanvas label={name} shownAt={shownAt} isSilent {...rest} />;
}

/** Framed by a worker of its own beside the version; the shot on screen comes first. */
function FramedSide({
  side,
  framedFrom: { state, version },
  ...rest
}: SideCanvasProps & { framedFrom: NonNullable<Side["framedFrom"]> }) {
  const { film, findings, player } = useDesk("film", "findings", "player");
  const store = useDeskStore();
  const playhead = () => store.getState().player?.getTarget() ?? 0;
  const { shots, waitFor } = useShots({ film, state, version, findings, playhead, pane: 0 });
  const { shownAt } = useShownAt(film, state, version, shots);
  const here = useShotHere(player, shots)?.id;
  useEffect(() => waitFor(here ? [here] : []), [waitFor, here]);
  return <ComposedCanvas label={side.name} shownAt={shownAt} isSilent {...rest} />;
}
