import { useEffect, useState } from "react";
import type { Composition } from "~/core/composition/composition";
import type { Size } from "~/core/geometry/box";
import { FrameGrabber } from "./frame-grabber";
import type { LightCopy } from "../model/piece-stream";

/** A small picture that is wanted: how a frame is composed, and its size. */
export interface Still {
  id: string;
  frame: number;
  shown: Composition;
  size: Size;
}

/** Small pictures by id, made one after the other with a video element of its own. Finished ones are kept. */
export function useStills(source: LightCopy, wanted: readonly Still[], picture: Size): ReadonlyMap<string, string> {
  const [stills, setStills] = useState<ReadonlyMap<string, string>>(new Map());
  // By what is in the list: a view may make a new one each time it is drawn, as it is with each picture that is done.
  const asked = JSON.stringify(wanted);
  useEffect(() => {
    const list = JSON.parse(asked) as Still[];
    if (list.length === 0) return;
    const grabber = new FrameGrabber(source);
    const run = async () => {
      for (const { id, frame, shown, size } of list) {
        const canvas = document.createElement("canvas");
        canvas.width = size.width;
        canvas.height = size.height;
        await grabber.draw(frame, canvas, picture, shown);
        if (grabber.disposed) return;
        const url = canvas.toDataURL("image/jpeg", 0.85);
        setStills((all) => new Map(all).set(id, url));
      }
    };
    run().catch(() => {
      // The grabber was let go while it was at work: nobody looks any more, or something else is wanted.
    });
    return () => grabber.dispose();
  }, [asked, source, picture]);
  return stills;
}
