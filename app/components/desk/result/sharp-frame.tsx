import { useEffect, useState } from "react";
import { boxCentre, type Size } from "~/core/geometry/box";
import { inRange } from "~/core/time/rate";
import { useFrame, usePlaying } from "../picture/use-player";
import { useDesk } from "../state/desk-context";

/** How long nothing is to move before the frame is asked for, in milliseconds. */
const CALM_MS = 350;

/** The frame that is on screen as it will be in the file, over what the desk has drawn from its proxy, while nothing moves. */
export function SharpFrame({ size }: { size: Size }) {
  const isPlaying = usePlaying(useDesk().player);
  return isPlaying ? null : <StandingFrame size={size} />;
}

function StandingFrame({ size }: { size: Size }) {
  const { film, state, version, player, revision, isBusy, shownAt, captionPlaces } = useDesk();
  const frame = useFrame(player);
  const [sharp, setSharp] = useState<{ url: string; of: unknown } | null>(null);
  // The windows of another frame, or of a path that has been laid again, are others.
  const windows = shownAt(frame)
    .panes.map(({ source, own }) => {
      const { x, y } = boxCentre(source);
      return own ? "0,0,1" : [x, y, source.height].map((value) => value.toFixed(4)).join();
    })
    .join(";");
  const captions = state.captions
    .filter((caption) => inRange(frame, caption))
    .map(({ id }) => `${id}:${captionPlaces.get(id) ?? 1}`)
    .join();
  const url = `/media/${film.id}/frame/${version.id}/${frame}.png?windows=${windows}&captions=${captions}&revision=${revision}`;
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
