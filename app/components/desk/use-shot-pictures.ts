import { useEffect, useRef, useState } from "react";
import type { Size } from "~/core/geometry/box";
import { windowBox } from "~/core/geometry/crop-window";
import { type Rate, seekSeconds } from "~/core/time/rate";
import type { DeskShot } from "./desk-types";

const PICTURE_SIDE = 128;

/** Draws the middle of a shot, as the version shows it. */
async function capture(
  video: HTMLVideoElement,
  shot: DeskShot,
  picture: Size,
  aspect: number,
  rate: Rate,
): Promise<string> {
  const frame = Math.floor((shot.start + shot.end) / 2);
  await new Promise<void>((resolve) => {
    video.addEventListener("seeked", () => resolve(), { once: true });
    video.currentTime = seekSeconds(frame, rate);
  });
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(PICTURE_SIDE * Math.min(1, aspect));
  canvas.height = Math.round(PICTURE_SIDE / Math.max(1, aspect));
  const scale = video.videoWidth / picture.width;
  const box = windowBox(shot.framed!.windows[frame - shot.start]!, aspect);
  canvas
    .getContext("2d")!
    .drawImage(
      video,
      box.x * scale,
      box.y * scale,
      box.width * scale,
      box.height * scale,
      0,
      0,
      canvas.width,
      canvas.height,
    );
  return canvas.toDataURL("image/jpeg", 0.8);
}

/**
 * A small picture of what a version shows of each shot, by shot id, made one after the other with a video element
 * of its own. A shot whose path changes gets a new one.
 */
export function useShotPictures(
  source: string | null,
  shots: DeskShot[],
  picture: Size,
  aspect: number,
  rate: Rate,
): ReadonlyMap<string, string> {
  const [pictures, setPictures] = useState<ReadonlyMap<string, string>>(new Map());
  const made = useRef(new Map<string, object>());

  useEffect(() => {
    if (!source) return;
    const open = shots.filter((shot) => shot.framed && made.current.get(shot.id) !== shot.framed);
    if (open.length === 0) return;
    let stopped = false;
    const video = document.createElement("video");
    video.muted = true;
    video.preload = "auto";
    const run = async () => {
      await new Promise((resolve) => video.addEventListener("loadeddata", resolve, { once: true }));
      for (const shot of open) {
        if (stopped) return;
        const url = await capture(video, shot, picture, aspect, rate);
        if (stopped) return;
        made.current.set(shot.id, shot.framed!);
        setPictures((all) => new Map(all).set(shot.id, url));
      }
    };
    video.src = source;
    void run();
    return () => {
      stopped = true;
      video.removeAttribute("src");
      video.load();
    };
  }, [source, shots, picture, aspect, rate]);

  return pictures;
}
