import { useEffect, useState } from "react";
import type { Size } from "~/core/geometry/box";
import { useFrame, usePlaying } from "../../hooks/use-player";
import { useDesk } from "../../hooks/use-desk";
import { useSharpAddress } from "../../frames/use-sharp-address";

/** How long nothing is to move before the frame is asked for, in milliseconds. */
const CALM_MS = 350;

/** The frame that is on screen as it will be in the file, over what the desk has drawn from its proxy, while nothing moves. */
export function SharpFrame({ size }: { size: Size }) {
  const isPlaying = usePlaying(useDesk("player").player);
  return isPlaying ? null : <StandingFrame size={size} />;
}

function StandingFrame({ size }: { size: Size }) {
  const { player, isBusy, shownAt } = useDesk("player", "isBusy", "shownAt");
  const frame = useFrame(player);
  const [sharp, setSharp] = useState<{ url: string; of: unknown } | null>(null);
  const url = useSharpAddress()(frame);
  useEffect(() => {
    let isOver = false;
    const picture = new Image();
    const timer = setTimeout(() => {
      // What the server does not know yet it cannot draw; it is asked when it has answered.
      if (isBusy()) return;
      picture.src = url;
      // Where it cannot be made, what the desk has drawn stays.
      void picture.decode().then(
        () => !isOver && setSharp({ url, of: shownAt }),
        () => {},
      );
    }, CALM_MS);
    return () => {
      isOver = true;
      clearTimeout(timer);
      picture.src = "";
    };
  }, [url, isBusy, shownAt]);
  if (sharp?.url !== url || sharp.of !== shownAt) return null;
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
