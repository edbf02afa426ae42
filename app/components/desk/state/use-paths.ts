import { useEffect, useMemo, useRef, useState } from "react";
import { toast } from "sonner";
import type { Size } from "~/core/geometry/box";
import { type FramedShot, type ShotBefore, type ShotFraming, whoIsFollowed } from "~/core/path/solve-version";
import type { Track } from "~/core/subjects/tracking/track";
import type { Rate } from "~/core/time/rate";
import type { PathReply } from "~/workers/path-worker";
import { PathQuestions } from "./path-questions";
import { PerShot } from "./per-shot";

export interface FramingInput {
  shotId: string;
  framing: ShotFraming;
}

/** All that decides a path, as text: a shot whose key has not changed is not solved again. */
const keyOf = ({ framing }: FramingInput, target: Size, before: ShotBefore): string =>
  JSON.stringify([target, before]) + framingKey(framing);

const framingKeys = new WeakMap<ShotFraming, string>();

function framingKey(framing: ShotFraming): string {
  const known = framingKeys.get(framing);
  if (known) return known;
  const key = JSON.stringify([
    framing.range,
    framing.settings,
    framing.protect,
    framing.active,
    framing.rule,
    framing.handKeys.map(({ frame, x, y, height, easing }) => [frame, x, y, height, easing]),
    framing.tracks.map(trackKey),
  ]);
  framingKeys.set(framing, key);
  return key;
}

/** What changes with a track: an edit takes boxes away, a mark made again gives it others. */
function trackKey(track: Track): string {
  let sum = 0;
  for (const box of track.boxes) if (box) sum += box.x + 2 * box.y + 3 * box.width + 5 * box.height;
  return `${track.id} ${track.who ?? ""} ${track.start} ${track.boxes.length} ${sum.toFixed(1)}`;
}

/** Milliseconds within which answers are gathered before the desk is drawn again. */
const TOGETHER_MS = 120;

/**
 * Paths of all shots, solved in a worker; while a shot is solved again its last path stays. A shot that changes all the
 * time, as in a drag, is drawn as often as it can be solved.
 */
export function usePaths(inputs: FramingInput[], picture: Size, target: Size, rate: Rate): Map<string, FramedShot> {
  const [solved, setSolved] = useState<Map<string, FramedShot>>(new Map());
  const worker = useRef<Worker | null>(null);
  const questions = useRef(new PathQuestions());

  useEffect(() => {
    const asked = questions.current;
    const created = new Worker(new URL("../../../workers/path-worker.ts", import.meta.url), { type: "module" });
    // The last answer is shown at once; while others are on their way, those that come soon after one another together.
    let arrived: Extract<PathReply, { framed: FramedShot }>[] = [];
    let shownAt = -Infinity;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const show = () => {
      const ready = arrived;
      arrived = [];
      clearTimeout(timer);
      timer = undefined;
      shownAt = performance.now();
      setSolved((all) => new Map([...all, ...ready.map(({ shotId, framed }) => [shotId, framed] as const)]));
    };
    created.addEventListener("message", ({ data }: MessageEvent<PathReply>) => {
      const { next, isOfUse } = asked.answered(data.shotId);
      if (next) created.postMessage(next);
      if ("error" in data)
        return void toast.error(`A path could not be laid: ${data.error}. Change the shot and try again.`);
      if (!isOfUse) return;
      arrived.push(data);
      if (asked.areOpen && performance.now() - shownAt < TOGETHER_MS) timer ??= setTimeout(show, TOGETHER_MS);
      else show();
    });
    worker.current = created;
    return () => {
      clearTimeout(timer);
      created.terminate();
      asked.clear();
      worker.current = null;
    };
  }, []);

  const [followed] = useState(() => new PerShot<string | null>());
  const whoBefore = useMemo(() => {
    let before: string | null = null;
    return inputs.map(({ shotId, framing }) => {
      const given = before;
      // Hand keys are no part of it: they say where the window is, not whom it follows.
      const { range, tracks, rule, settings, active } = framing;
      before = followed.get(
        shotId,
        [range.start, range.end, tracks, JSON.stringify(rule), settings, active, picture, target, rate, given],
        () => whoIsFollowed(framing, picture, target, rate, given),
      );
      return given;
    });
  }, [followed, inputs, picture, target, rate]);
  useEffect(() => {
    for (const [i, input] of inputs.entries()) {
      // A window that goes on over the boundary is solved again when the shot before has been.
      const last = input.framing.carry && i > 0 ? solved.get(inputs[i - 1]!.shotId) : undefined;
      const before = { window: last?.windows.at(-1) ?? null, who: whoBefore[i]! };
      const key = keyOf(input, target, before);
      const { shotId, framing } = input;
      const request = questions.current.ask(key, { shotId, framing, picture, target, rate, before });
      if (request) worker.current?.postMessage(request);
    }
  }, [inputs, whoBefore, picture, target, rate, solved]);

  // A path of a shot that has since been reshaped does not fit it any more.
  return useMemo(() => {
    const paths = new Map<string, FramedShot>();
    for (const { shotId, framing } of inputs) {
      const framed = solved.get(shotId);
      const { start, end } = framing.range;
      if (framed?.keys[0]?.frame === start && framed.windows.length === end - start) paths.set(shotId, framed);
    }
    return paths;
  }, [inputs, solved]);
}
