import { useEffect, useRef, useState } from "react";
import type { ShownAt } from "~/core/composition/composition";
import { isSameList } from "~/core/basics/structure";
import type { Size } from "~/core/geometry/box";
import type { DeskShot } from "../../model/desk-types";
import { FrameGrabber } from "../../frames/frame-grabber";
import type { LightCopy } from "../../model/piece-stream";

const PICTURE_SIDE = 128;

/** Draws a shot's representative frame, as the version shows it. */
async function capture(grabber: FrameGrabber, shot: DeskShot, shown: ShownAt, picture: Size, aspect: number) {
  const frame = shot.tellingFrame;
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(PICTURE_SIDE * Math.min(1, aspect));
  canvas.height = Math.round(PICTURE_SIDE / Math.max(1, aspect));
  await grabber.draw(frame, canvas, picture, shown(frame));
  return canvas.toDataURL("image/jpeg", 0.8);
}

/**
 * A small picture of the version for each given shot, by shot id, made one after the other with a video element of its own.
 * A shot whose path changes gets a new one; finished ones are kept.
 * @param layered adds the version's layers; null where there are none
 */
export function useShotPictures(
  source: LightCopy,
  shots: readonly DeskShot[],
  picture: Size,
  aspect: number,
  layered: ((shown: ShownAt) => ShownAt) | null,
): ReadonlyMap<string, string> {
  const [pictures, setPictures] = useState<ReadonlyMap<string, string>>(new Map());
  const made = useRef(new Map<string, readonly unknown[]>());

  useEffect(() => {
    const basisOf = (shot: DeskShot) => [shot.solved, layered];
    const open = shots.filter((shot) => shot.solved && !isSameList(made.current.get(shot.id) ?? [], basisOf(shot)));
    if (open.length === 0) return;
    const grabber = new FrameGrabber(source);
    const run = async () => {
      for (const shot of open) {
        const url = await capture(grabber, shot, layered ? layered(shot.shown!) : shot.shown!, picture, aspect);
        if (grabber.disposed) return;
        made.current.set(shot.id, basisOf(shot));
        setPictures((all) => new Map(all).set(shot.id, url));
      }
    };
    run().catch(() => {
      // The grabber was let go while it was at work: the next effect does what is left.
    });
    return () => grabber.dispose();
  }, [source, shots, picture, aspect, layered]);

  return pictures;
}
