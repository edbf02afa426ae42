import { useEffect, useMemo, useRef, useState } from "react";
import type { Size } from "~/core/geometry/box";
import { type FramedShot, followedBefore, type ShotBefore, type ShotFraming } from "~/core/path/solve-version";
import type { Track } from "~/core/subjects/track";
import type { Rate } from "~/core/time/rate";
import type { PathReply, PathRequest } from "~/workers/path-worker";

export interface FramingInput {
  shotId: string;
  framing: ShotFraming;
}

/** All that decides a path, as text: a shot whose key has not changed is not solved again. */
const keyOf = ({ shotId, framing }: FramingInput, target: Size, before: ShotBefore): string =>
  JSON.stringify([
    shotId,
    target,
    before,
    framing.range,
    framing.settings,
    framing.protect,
    framing.rule,
    framing.handKeys,
    framing.tracks.map(trackKey),
  ]);

/** What changes with a track: an edit takes boxes away, a mark made again gives it others. */
function trackKey(track: Track): string {
  let sum = 0;
  for (const box of track.boxes) if (box) sum += box.x + 2 * box.y + 3 * box.width + 5 * box.height;
  return `${track.id} ${track.who ?? ""} ${track.start} ${track.boxes.length} ${sum.toFixed(1)}`;
}

/** Milliseconds within which answers are gathered before the desk is drawn again. */
const TOGETHER_MS = 120;

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
    // One answer is shown at once; many that come soon after one another are shown together.
    let arrived: PathReply[] = [];
    let shownAt = -Infinity;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const show = () => {
      // An answer to a question that has been asked anew in the meantime is out of date.
      const current = arrived.filter(({ shotId, key }) => requested.get(shotId) === key);
      arrived = [];
      timer = undefined;
      shownAt = performance.now();
      setSolved((all) => new Map([...all, ...current.map((reply) => [reply.shotId, reply] as const)]));
    };
    created.addEventListener("message", ({ data }: MessageEvent<PathReply>) => {
      arrived.push(data);
      timer ??= setTimeout(show, performance.now() - shownAt > TOGETHER_MS ? 0 : TOGETHER_MS);
    });
    worker.current = created;
    return () => {
      clearTimeout(timer);
      created.terminate();
      requested.clear();
      worker.current = null;
    };
  }, []);

  const whoBefore = useMemo(
    () =>
      followedBefore(
        inputs.map(({ framing }) => framing),
        picture,
        target,
        rate,
      ),
    [inputs, picture, target, rate],
  );
  useEffect(() => {
    for (const [i, input] of inputs.entries()) {
      // A window that goes on over the boundary is solved again when the shot before has been.
      const last = input.framing.carry && i > 0 ? solved.get(inputs[i - 1]!.shotId)?.framed : undefined;
      const before = { window: last?.windows.at(-1) ?? null, who: whoBefore[i]! };
      const key = keyOf(input, target, before);
      if (asked.current.get(input.shotId) === key) continue;
      asked.current.set(input.shotId, key);
      const request: PathRequest = {
        key,
        shotId: input.shotId,
        framing: input.framing,
        picture,
        target,
        rate,
        before,
      };
      worker.current?.postMessage(request);
    }
  }, [inputs, whoBefore, picture, target, rate, solved]);

  // A path of a shot that has since been reshaped does not fit it any more.
  return useMemo(() => {
    const paths = new Map<string, FramedShot>();
    for (const { shotId, framing } of inputs) {
      const framed = solved.get(shotId)?.framed;
      const { start, end } = framing.range;
      if (framed?.keys[0]?.frame === start && framed.windows.length === end - start) paths.set(shotId, framed);
    }
    return paths;
  }, [inputs, solved]);
}
