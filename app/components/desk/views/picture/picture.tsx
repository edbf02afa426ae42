import { type RefCallback, useRef } from "react";
import { useDesk } from "../../hooks/use-desk";
import { CropWindowControl } from "./crop-window-control";
import { DrawingLayer } from "./drawing-layer";
import { Bars, MarkHere, ProtectedPart, TextHere } from "./kept-parts";
import { OtherPanes } from "./other-panes";
import { PictureSubjects } from "./picture-subjects";
import { SteerLayer } from "./steer-layer";
import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.picture;

export interface PictureProps {
  videoRef: RefCallback<HTMLVideoElement>;
  /** Why the picture is not visible; null while it is. */
  notice: string | null;
}

/** The whole picture with the crop window, and what is moved or drawn on it. */
export function Picture({ videoRef, notice }: PictureProps) {
  const { film, player, pictureLook, drawing } = useDesk("film", "player", "pictureLook", "drawing");
  const { picture } = film;
  const svg = useRef<SVGSVGElement>(null);
  return (
    <div className="relative size-full bg-black">
      <video
        ref={videoRef}
        preload="auto"
        playsInline
        aria-label={t.theWholePicture}
        className="absolute inset-0 size-full"
      />
      <svg
        ref={svg}
        viewBox={`0 0 ${picture.width} ${picture.height}`}
        className="absolute inset-0 size-full touch-none overflow-visible"
      >
        <CropWindowControl svg={svg}>
          {(pictureLook.subjects || drawing === "mark") && <PictureSubjects />}
        </CropWindowControl>
        <OtherPanes />
        <Bars />
        <ProtectedPart />
        <TextHere />
        <MarkHere />
        {drawing && drawing !== "steer" && player && <DrawingLayer drawing={drawing} player={player} />}
        {drawing === "steer" && player && <SteerLayer player={player} />}
      </svg>
      {notice && (
        <p
          role="status"
          className="pointer-events-none absolute inset-x-0 top-1/2 mx-auto w-fit max-w-[90%] -translate-y-1/2 rounded bg-black/75 px-3 py-1.5 text-sm text-white"
        >
          {notice}
        </p>
      )}
    </div>
  );
}
