import { lazy, Suspense, useCallback, useState } from "react";
import { useSize } from "../../common/use-size";
import { useDesk } from "../state/desk-context";
import { ReshapePanel } from "../reshape/reshape-panel";
import { StretchBar } from "../trim/stretch-bar";
import { Picture, type PictureProps } from "./picture";

// The canvas library is for browsers only, and large.
const PathLane = lazy(() => import("../lane/path-lane"));

/** Room beside and above the picture. */
const GUTTER = 20;
/** The picture takes at most this share of the height, so that the lane has room. */
const PICTURE_SHARE = 0.6;
/** Width of the lane beside the picture, for a window that moves up and down. */
const SIDE_LANE = 240;
const ZOOM = { initial: 1.1, least: 0.05, most: 24 };

/** The picture with its lanes: under it for a window that moves sideways, beside it for one that moves up and down. */
export function PictureAndLanes({ videoRef, notice }: Pick<PictureProps, "videoRef" | "notice">) {
  const { film, player, shots, free, version, kept, keyEdits, trimEdits, reshape, pictureLook } = useDesk();
  const { place, preview } = keyEdits;
  const [element, setElement] = useState<HTMLDivElement | null>(null);
  const room = useSize(element);
  const [pxPerFrame, setPxPerFrame] = useState(ZOOM.initial);
  const zoom = useCallback(
    (factor: number) => setPxPerFrame((value) => Math.min(ZOOM.most, Math.max(ZOOM.least, value * factor))),
    [],
  );
  const giveUp = useCallback(() => preview(0, null), [preview]);

  const { picture } = film;
  const side = free.y ? SIDE_LANE : 0;
  const roomWidth = Math.max(0, room.width - side - 2 * GUTTER);
  const roomHeight = free.x ? room.height * PICTURE_SHARE : room.height - 2 * GUTTER;
  const fitted = Math.min(roomWidth / picture.width, Math.max(0, roomHeight - GUTTER) / picture.height);
  const scale = (fitted * pictureLook.size) / 100;
  const width = picture.width * scale;
  const height = picture.height * scale;
  const left = GUTTER + (roomWidth - width) / 2;
  const lane = {
    ...{ player, shots, scale, pxPerFrame, clock: film.clock, onZoom: zoom },
    ...{ frames: film.frames, kept, trim: version.trim },
    ...{ stretch: trimEdits.stretch, onStretch: trimEdits.setStretch },
    ...{ onPlace: place, onPreview: preview, onGiveUp: giveUp },
  };

  return (
    <div ref={setElement} className="relative min-h-0 overflow-hidden">
      <div className="absolute" style={{ left, top: GUTTER, width, height }}>
        <Picture videoRef={videoRef} notice={notice} />
      </div>
      <Suspense>
        {free.x && scale > 0 && (
          <section aria-label="Lane" className="absolute left-0" style={{ top: GUTTER + height }}>
            <PathLane
              {...lane}
              axis="x"
              origin={left}
              size={{ width: room.width - side, height: Math.max(0, room.height - height - GUTTER) }}
            />
          </section>
        )}
        {free.y && scale > 0 && (
          <section
            aria-label="Lane beside the picture"
            className="absolute top-0 border-l border-line"
            style={{ right: 0 }}
          >
            <PathLane {...lane} axis="y" origin={GUTTER} size={{ width: SIDE_LANE, height: height + 2 * GUTTER }} />
          </section>
        )}
      </Suspense>
      {reshape.reshaping ? <ReshapePanel /> : <StretchBar />}
    </div>
  );
}
