import { useEffect, useMemo, useRef, useState } from "react";
import type { Size } from "~/core/geometry/box";
import type { FramedShot, ShotFraming } from "~/core/path/solve-version";
import type { Rate } from "~/core/time/rate";
import type { PathReply, PathRequest } from "~/workers/path-worker";

export interface FramingInput {
  shotId: string;
  framing: ShotFraming;
}

/** All that decides a path, as text: a shot whose key has not changed is not solved again. */
const keyOf = ({ shotId, framing }: FramingInput, target: Size): string =>
  JSON.stringify([
    shotId,
    target,
    framing.range,
    framing.manner,
    framing.subjectId ?? typeof framing.subjectId,
    framing.handKeys,
    framing.tracks.map((track) => track.id),
  ]);

interface Solved {
  key: string;
  framed: FramedShot;
}

/** Paths of all shots, solved in a worker; while a shot is solved again its last path stays. */
export function usePaths(inputs: FramingInput[], picture: Size, target: Size, rate: Rate): Map<string, FramedShot> {
  const [solved, setSolved] = useState<Map<string, Solved>>(new Map());
  const worker = useRef<Worker | null>(null);
  const asked = useRef(new Map<string, string>());

  useEffect(() => {
    const requested = asked.current;
    const created = new Worker(new URL("../../workers/path-worker.ts", import.meta.url), { type: "module" });
    created.addEventListener("message", ({ data }: MessageEvent<PathReply>) => {
      // An answer to a question that has been asked anew in the meantime is out of date.
      if (requested.get(data.shotId) !== data.key) return;
      setSolved((all) => new Map(all).set(data.shotId, { key: data.key, framed: data.framed }));
    });
    worker.current = created;
    return () => {
      created.terminate();
      requested.clear();
      worker.current = null;
    };
  }, []);

  useEffect(() => {
    for (const input of inputs) {
      const key = keyOf(input, target);
      if (asked.current.get(input.shotId) === key) continue;
      asked.current.set(input.shotId, key);
      const request: PathRequest = { key, shotId: input.shotId, framing: input.framing, picture, target, rate };
      worker.current?.postMessage(request);
    }
  }, [inputs, picture, target, rate]);

  return useMemo(() => new Map([...solved].map(([id, { framed }]) => [id, framed])), [solved]);
}
