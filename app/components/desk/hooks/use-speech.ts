import { useEffect, useState } from "react";
import { z } from "zod";
import { FrameRange } from "~/core/time/rate";

const Answer = z.object({ segments: z.array(FrameRange).nullable() });
const NOBODY: readonly FrameRange[] = [];

/**
 * The film's speech segments; none until they have loaded.
 * @param findings revision of the findings, with which the segments are loaded again
 */
export function useSpeech(filmId: string, findings: number): readonly FrameRange[] {
  const [segments, setSegments] = useState(NOBODY);
  useEffect(() => {
    const gone = new AbortController();
    fetch(`/films/${filmId}/speech`, { signal: gone.signal })
      .then(async (response) => Answer.parse(await response.json()).segments ?? NOBODY)
      // Captions can be timed by hand without it.
      .catch(() => NOBODY)
      .then((found) => !gone.signal.aborted && setSegments(found));
    return () => gone.abort();
  }, [filmId, findings]);
  return segments;
}
