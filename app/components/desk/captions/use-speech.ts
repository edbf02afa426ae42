import { useEffect, useState } from "react";
import { z } from "zod";
import { FrameRange } from "~/core/time/rate";

const Answer = z.object({ stretches: z.array(FrameRange).nullable() });
const NOBODY: readonly FrameRange[] = [];

/**
 * The stretches of a film in which somebody speaks; none until they are there.
 *
 * @param findings how new what is known of the film is: with it the stretches are asked for again
 */
export function useSpeech(filmId: string, findings: number): readonly FrameRange[] {
  const [stretches, setStretches] = useState(NOBODY);
  useEffect(() => {
    const gone = new AbortController();
    fetch(`/films/${filmId}/speech`, { signal: gone.signal })
      .then(async (response) => Answer.parse(await response.json()).stretches ?? NOBODY)
      // Captions can be timed by hand without it.
      .catch(() => NOBODY)
      .then((found) => !gone.signal.aborted && setStretches(found));
    return () => gone.abort();
  }, [filmId, findings]);
  return stretches;
}
