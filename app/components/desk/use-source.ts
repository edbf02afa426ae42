import { useCallback, useState } from "react";

/** What a desk plays, and what it calls when the browser cannot. */
export interface Source {
  /** Null while there is nothing that can be played. */
  url: string | null;
  onFailed: () => void;
}

/**
 * The light copy of a film or, until that is there, the film's own file where the browser plays it. A desk stays with
 * what it began with: a change in the middle of the work would take the picture away.
 */
export function useSource(filmId: string, copyIsThere: boolean, originalPlays: boolean): Source {
  const [original, setOriginal] = useState(!copyIsThere && originalPlays);
  const onFailed = useCallback(() => setOriginal(false), []);
  const copy = copyIsThere ? `/media/${filmId}/proxy.mp4` : null;
  return { url: original ? `/media/${filmId}/original` : copy, onFailed };
}
