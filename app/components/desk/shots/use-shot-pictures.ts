import { useEffect, useRef, useState } from "react";
import type { Size } from "~/core/geometry/box";
import type { DeskShot } from "../state/desk-types";
import { FrameGrabber } from "../picture/frame-grabber";
import type { LightCopy } from "../picture/piece-stream";

const PICTURE_SIDE = 128;

/** Draws the frame of a shot that says most about it, as the version shows it. */
async function capture(grabber: FrameGrabber, shot: DeskShot, picture: Size, aspect: number): Promise<string> {
  const frame = shot.tellingFrame;
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(PICTURE_SIDE * Math.min(1, aspect));
  canvas.height = Math.round(PICTURE_SIDE / Math.max(1, aspect));
  await grabber.draw(frame, canvas, picture, shot.shown!(frame));
  return canvas.toDataURL("image/jpeg", 0.8);
}

/**
 * A small picture of what a version shows of each of the given shots, by shot id, made one after the other with a
 * video element of its own. A shot whose path changes gets a new one; those made before are kept.
 */
export function useShotPictures(
  source: LightCopy,
  shots: readonly DeskShot[],
  picture: Size,
  aspect: number,
): ReadonlyMap<string, string> {
  const [pictures, setPictures] = useState<ReadonlyMap<string, string>>(new Map());
  const made = useRef(new Map<string, object>());

  useEffect(() => {
    const open = shots.filter((shot) => shot.solved && made.current.get(shot.id) !== shot.solved);
    if (open.length === 0) return;
    const grabber = new FrameGrabber(source);
    const run = async () => {
      for (const shot of open) {
        const url = await capture(grabber, shot, picture, aspect);
        if (grabber.disposed) return;
        made.current.set(shot.id, shot.solved!);
        setPictures((all) => new Map(all).set(shot.id, url));
      }
    };
    run().catch(() => {
      // The grabber was let go while it was at work: the next effect does what is left.
    });
    return () => grabber.dispose();
  }, [source, shots, picture, aspect]);

  return pictures;
}
