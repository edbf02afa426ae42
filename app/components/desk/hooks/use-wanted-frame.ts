import { useEffect } from "react";
import { useLatest } from "~/components/common/use-latest";
import type { Trim } from "~/core/version/trim";
import { type FrameRange, inRange } from "~/core/time/rate";
import type { Player } from "../model/player";

/** Milliseconds for which the playhead rests before what is there is asked for. */
const REST_MS = 700;

const ask = (filmId: string, frame: number): void => {
  // Should it be lost, the analysis gets there all the same.
  const headers = { "content-type": "application/json" };
  void fetch(`/films/${filmId}/wanted`, { method: "POST", headers, body: JSON.stringify({ frame }) }).catch(() => {});
};

/**
 * Lets the analysis go on where the editor is: at the playhead, once it rests where nothing has been analysed yet, and
 * at an in point that is set there.
 *
 * @param missing what is to be analysed
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
