import { lazy, Suspense, useState } from "react";
import type { Box } from "~/core/geometry/box";
import type { CropWindow } from "~/core/geometry/crop-window";
import type { DeskFilm, DeskShot } from "../state/desk-types";
import { type Drawing, Picture } from "./picture";
import type { Player } from "./player";
import { useSize } from "../../common/use-size";

// The canvas library is for browsers only, and large.
const PathLane = lazy(() => import("../lane/path-lane"));

interface TableProps {
  film: DeskFilm;
  player: Player | null;
  videoRef: (video: HTMLVideoElement | null) => void;
  /** Why the picture cannot be seen for the moment; null while it can. */
  notice: string | null;
  shots: DeskShot[];
  aspect: number;
  free: { x: boolean; y: boolean };
  windowAt: (frame: number) => CropWindow;
  showSubjects: boolean;
  onPlace: (frame: number, window: CropWindow, fromFrame?: number | null) => void;
  onPreview: (frame: number, window: CropWindow | null, fromFrame?: number | null) => void;
  onFollow: (shot: DeskShot, trackId: string) => void;
  drawing: Drawing | null;
  onDrawn: (frame: number, box: Box | null) => void;
}

/** Room beside and above the picture. */
const GUTTER = 20;
/** The picture takes at most this share of the height, so that the lane has room. */
const PICTURE_SHARE = 0.6;
/** Width of the lane beside the picture, for a window that moves up and down. */
const SIDE_LANE = 240;
const ZOOM = { initial: 1.1, least: 0.05, most: 24 };

/** The picture with its lanes: under it for a window that moves sideways, beside it for one that moves up and down. */
export function Table({
  film,
  player,
  videoRef,
  notice,
  shots,
  aspect,
  free,
  windowAt,
  showSubjects,
  onPlace,
  onPreview,
  onFollow,
  drawing,
  onDrawn,
}: TableProps) {
  const [element, setElement] = useState<HTMLDivElement | null>(null);
  const room = useSize(element);
  const [pxPerFrame, setPxPerFrame] = useState(ZOOM.initial);
  const zoom = (factor: number) => setPxPerFrame((value) => Math.min(ZOOM.most, Math.max(ZOOM.least, value * factor)));

  const { picture } = film;
  const side = free.y ? SIDE_LANE : 0;
  const roomWidth = Math.max(0, room.width - side - 2 * GUTTER);
  const roomHeight = free.x ? room.height * PICTURE_SHARE : room.height - 2 * GUTTER;
  const scale = Math.min(roomWidth / picture.width, Math.max(0, roomHeight - GUTTER) / picture.height);
  const width = picture.width * scale;
  const height = picture.height * scale;
  const left = GUTTER + (roomWidth - width) / 2;
  const onGiveUp = () => onPreview(0, null);
  const lane = { player, shots, scale, pxPerFrame, clock: film.clock, onZoom: zoom, onPlace, onPreview, onGiveUp };

  return (
    <div ref={setElement} className="relative min-h-0 overflow-hidden">
      <div className="absolute" style={{ left, top: GUTTER, width, height }}>
        <Picture
          player={player}
          videoRef={videoRef}
          notice={notice}
          picture={picture}
          aspect={aspect}
          shots={shots}
          windowAt={windowAt}
          showSubjects={showSubjects}
          onPlace={onPlace}
          onPreview={onPreview}
          onFollow={onFollow}
          drawing={drawing}
          onDrawn={onDrawn}
        />
      </div>
      <Suspense>
        {free.x && scale > 0 && (
          <section aria-label="Lane" className="absolute left-0" style={{ top: GUTTER + height }}>
            <PathLane
              {...lane}
              axis="x"
              origin={left}
              size={{ width: room.width - side, height: Math.max(0, room.height - height - GUTTER) }}
              lengthOfHeight={aspect}
            />
          </section>
        )}
        {free.y && scale > 0 && (
          <section
            aria-label="Lane beside the picture"
            className="absolute top-0 border-l border-line"
            style={{ right: 0 }}
          >
            <PathLane
              {...lane}
              axis="y"
              origin={GUTTER}
              size={{ width: SIDE_LANE, height: height + 2 * GUTTER }}
              lengthOfHeight={1}
            />
          </section>
        )}
      </Suspense>
    </div>
  );
}
