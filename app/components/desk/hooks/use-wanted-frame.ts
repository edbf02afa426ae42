import { useEffect } from "react";
import { useLatest } from "~/components/common/use-latest";
import type { Trim } from "~/core/version/trim";
import { type FrameRange, inRange } from "~/core/time/rate";
import type { Player } from "../model/player";

/** Milliseconds for which the playhead rests before its frame is requested. */
const REST_MS = 700;

const ask = (filmId: string, frame: number): void => {
  // If the request is lost, the analysis gets there all the same.
  const headers = { "content-type": "application/json" };
  void fetch(`/films/${filmId}/wanted`, { method: "POST", headers, body: JSON.stringify({ frame }) }).catch(() => {});
};

/**
 * Directs the analysis to the editor: to the playhead where it rests on a part that has not been analysed, and to an in
 * point that is set there.
 * @param missing the part that is still to be analysed
 */
export function useWantedFrame(
  filmId: string,
  player: Player | null,
  missing: readonly FrameRange[],
  trim: Trim,
): void {
  const latest = useLatest(missing);
  useEffect(() => {
    if (!player) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let last = player.getTarget();
    const look = () => {
      const frame = player.getTarget();
      if (frame === last) return;
      last = frame;
      clearTimeout(timer);
      if (latest.current.some((range) => inRange(frame, range))) timer = setTimeout(() => ask(filmId, frame), REST_MS);
    };
    const unsubscribe = player.subscribe(look);
    return () => {
      clearTimeout(timer);
      unsubscribe();
    };
  }, [filmId, player, latest]);

  const { in: first } = trim;
  const isMissing = first !== null && missing.some((range) => inRange(first, range));
  useEffect(() => {
    if (isMissing) ask(filmId, first);
  }, [filmId, first, isMissing]);
}
