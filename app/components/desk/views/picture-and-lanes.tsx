import { clamped } from "~/core/numbers/clamped";
import { lazy, Suspense, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { useSize } from "../../common/use-size";
import { useDesk } from "../hooks/use-desk";
import { ReshapePanel } from "./reshape/reshape-panel";
import { useShortcutKeys } from "../hooks/use-shortcut-keys";
import { useWaveform } from "../hooks/use-waveform";
import { RangeBar } from "./trim/range-bar";
import { Picture, type PictureProps } from "./picture/picture";
import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.pictureAndLanes;

// The canvas library is large and runs in browsers only.
const PathLane = lazy(() => import("./lane/path-lane"));

/** Room beside and above the picture. */
const GUTTER = 20;
/** Largest share of the height for the picture, so that the lane has room. */
const PICTURE_SHARE = 0.6;
/** Share of the desk's height into which the whole film fits at the smallest zoom. */
const LEAST_ROOM = 0.2;
/** Width of the lane beside the picture, for a window that moves up and down. */
const SIDE_LANE = 240;
const ZOOM = { initial: 1.1, most: 24, step: 1.5 };

/** The picture with its lanes: under it for a window that moves sideways, beside it for one that moves up and down. */
export function PictureAndLanes({ videoRef, notice }: Pick<PictureProps, "videoRef" | "notice">) {
  const { film, facts, free, reshape, pictureLook } = useDesk("film", "facts", "free", "reshape", "pictureLook");
  const waveform = useWaveform(film.id, facts.audio);
  const { frames } = film;
  const [element, setElement] = useState<HTMLDivElement | null>(null);
  const room = useSize(element);
  const [pxPerFrame, setPxPerFrame] = useState(ZOOM.initial);
  const zoom = (factor: number) =>
    setPxPerFrame((value) => {
      // From single frames to the whole film in the room available.
      const least = Math.min(ZOOM.initial, (LEAST_ROOM * room.height) / frames);
      return clamped(value * factor, least, ZOOM.most);
    });
  const keys = useShortcutKeys();
  useHotkeys(keys["lane-in"], () => zoom(ZOOM.step), { preventDefault: true });
  useHotkeys(keys["lane-out"], () => zoom(1 / ZOOM.step), { preventDefault: true });
  useHotkeys(keys["lane-all"], () => zoom(0), { preventDefault: true });

  const { picture } = film;
  const side = free.y ? SIDE_LANE : 0;
  const roomWidth = Math.max(0, room.width - side - 2 * GUTTER);
  const roomHeight = free.x ? room.height * PICTURE_SHARE : room.height - 2 * GUTTER;
  const fitted = Math.min(roomWidth / picture.width, Math.max(0, roomHeight - GUTTER) / picture.height);
  const scale = (fitted * pictureLook.size) / 100;
  const width = picture.width * scale;
  const height = picture.height * scale;
  const left = GUTTER + (roomWidth - width) / 2;
  const lane = { scale, pxPerFrame, waveform, onZoom: zoom };

  return (
    <div ref={setElement} className="relative min-h-0 overflow-hidden">
      <div className="absolute" style={{ left, top: GUTTER, width, height }}>
        <Picture videoRef={videoRef} notice={notice} />
      </div>
      <Suspense>
        {free.x && scale > 0 && (
          <section aria-label={t.lane} className="absolute left-0" style={{ top: GUTTER + height }}>
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
            aria-label={t.laneBesideThePicture}
            className="absolute top-0 border-l border-line"
            style={{ right: 0 }}
          >
            <PathLane {...lane} axis="y" origin={GUTTER} size={{ width: SIDE_LANE, height: height + 2 * GUTTER }} />
          </section>
        )}
      </Suspense>
      {reshape.reshaping ? <ReshapePanel /> : <RangeBar />}
    </div>
  );
}
