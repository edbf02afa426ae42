import { clamped } from "~/core/numbers/clamped";
import { lazy, Suspense, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { useSize } from "../../common/use-size";
import { asSwitches, moveSwitch } from "~/core/subjects/attention/edit-switches";
import { useDesk } from "../hooks/use-desk";
import type { DeskShot } from "../model/desk-types";
import { ReshapePanel } from "./reshape/reshape-panel";
import { useShortcutKeys } from "../hooks/use-shortcut-keys";
import { RangeBar } from "./trim/range-bar";
import { useWaveform } from "../hooks/use-waveform";
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
  const {
    film,
    player,
    shots,
    free,
    version,
    kept,
    keyCommands,
    shotCommands,
    rangeCommands,
    reshape,
    pictureLook,
    facts,
    selectedKeys,
    aspect,
    state,
    panel,
    captionCommands,
    speech,
  } = useDesk(
    "film",
    "player",
    "shots",
    "free",
    "version",
    "kept",
    "keyCommands",
    "shotCommands",
    "rangeCommands",
    "reshape",
    "pictureLook",
    "facts",
    "selectedKeys",
    "aspect",
    "state",
    "panel",
    "captionCommands",
    "speech",
  );
  const { frames } = film;
  const { audio } = facts;
  const { place, preview } = keyCommands;
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
  const waveform = useWaveform(film.id, audio);
  const moveOneSwitch = (shot: DeskShot, index: number, frame: number) => {
    if (shot.framed) shotCommands.follow([shot], moveSwitch(asSwitches(shot.framed.spans), index, frame, shot));
  };
  const giveUp = () => preview(0, null);

  const { picture } = film;
  const side = free.y ? SIDE_LANE : 0;
  const roomWidth = Math.max(0, room.width - side - 2 * GUTTER);
  const roomHeight = free.x ? room.height * PICTURE_SHARE : room.height - 2 * GUTTER;
  const fitted = Math.min(roomWidth / picture.width, Math.max(0, roomHeight - GUTTER) / picture.height);
  const scale = (fitted * pictureLook.size) / 100;
  const width = picture.width * scale;
  const height = picture.height * scale;
  const left = GUTTER + (roomWidth - width) / 2;
  const { selected, select, dragged, preview: previewCaptions, put } = captionCommands;
  const captions =
    panel === "captions" && state.captions.length > 0
      ? {
          captions: state.captions,
          selected,
          speech,
          select,
          dragged,
          put,
          preview: previewCaptions,
          onSeek: (frame: number) => player?.seek(frame),
        }
      : null;
  const lane = {
    player,
    shots,
    scale,
    pxPerFrame,
    clock: film.clock,
    onZoom: zoom,
    frames: film.frames,
    kept,
    trim: version.trim,
    range: rangeCommands.marked,
    onRange: rangeCommands.markRange,
    waveform,
    selectedKeys,
    aspect,
    onEase: keyCommands.ease,
    onPlace: place,
    onPreview: preview,
    onGiveUp: giveUp,
    onMoveSwitch: moveOneSwitch,
    captions,
  };

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
