import { useEffect, useState } from "react";
import type { Size } from "~/core/geometry/box";
import { useFrame, usePlaying } from "../../hooks/use-player";
import { useDesk } from "../../hooks/use-desk";
import { useSharpAddress } from "../../frames/use-sharp-address";

/** Milliseconds without movement before the frame is requested. */
const CALM_MS = 350;

/** The frame on screen as it will be in the file, over the desk's own drawing from the proxy, while nothing moves. */
export function SharpFrame({ size }: { size: Size }) {
  const isPlaying = usePlaying(useDesk("player").player);
  return isPlaying ? null : <StandingFrame size={size} />;
}

function StandingFrame({ size }: { size: Size }) {
  const { player, isBusy, shownAt } = useDesk("player", "isBusy", "shownAt");
  const frame = useFrame(player);
  const [sharp, setSharp] = useState<{ url: string; source: unknown } | null>(null);
  const url = useSharpAddress()(frame);
  useEffect(() => {
    let isOver = false;
    const picture = new Image();
    const timer = setTimeout(() => {
      // The server cannot draw what it does not know yet; the request follows its answer.
      if (isBusy()) return;
      picture.src = url;
      // If it cannot be made, the desk's drawing stays.
      void picture.decode().then(
        () => !isOver && setSharp({ url, source: shownAt }),
        () => {},
      );
    }, CALM_MS);
    return () => {
      isOver = true;
      clearTimeout(timer);
      picture.src = "";
    };
  }, [url, isBusy, shownAt]);
  if (sharp?.url !== url || sharp.source !== shownAt) return null;
  return (
    <img
      src={url}
      alt=""
      data-sharp={frame}
      className="pointer-events-none absolute inset-0"
      style={{ width: size.width, height: size.height }}
    />
  );
}
