import { useEffect, useReducer, useState } from "react";
import { FilmStatus } from "~/core/film/film-status";
import { shareStructure } from "~/core/basics/structure";
import { tellWhetherAnswering } from "~/components/common/not-answering";
import { isUnderWay } from "~/components/common/use-polling";

/** Milliseconds between two requests; fewer while something is awaited. */
const USUAL_MS = 800;
const SOON_MS = 200;

async function fetchStatus(filmId: string): Promise<FilmStatus | null> {
  const status = await fetch(`/films/${filmId}/status`, { cache: "no-store" })
    .then(async (response) => (response.ok ? FilmStatus.parse(await response.json()) : null))
    .catch(() => null);
  tellWhetherAnswering(status !== null);
  return status;
}

/** Milliseconds until the next request, even without jobs: the film may be changed in another window. */
const untilNext = ({ jobs }: FilmStatus): number =>
  jobs.some((job) => job.kind === "follow" && isUnderWay(job)) ? SOON_MS : USUAL_MS;

/** Waits until the page is visible. */
async function untilSeen(ended: AbortSignal): Promise<void> {
  if (!document.hidden) return;
  await new Promise((resolve) => document.addEventListener("visibilitychange", resolve, { once: true, signal: ended }));
}

/**
 * What is being done to a film: as it was loaded, and polled while the page is visible.
 * @returns the status, and a function that polls at once
 */
export function useStatus(filmId: string, loaded: FilmStatus): [FilmStatus, () => void] {
  const [known, setKnown] = useState({ loaded, status: loaded });
  if (known.loaded !== loaded) setKnown({ loaded, status: loaded });
  const [asked, refresh] = useReducer((count: number) => count + 1, 0);
  useEffect(() => {
    const ended = new AbortController();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const wait = (ms: number) => {
      timer = setTimeout(() => void look(), ms);
    };
    const look = async () => {
      await untilSeen(ended.signal);
      const next = await fetchStatus(filmId);
      if (ended.signal.aborted) return;
      // Nothing renders again unless something changed.
      if (next) setKnown((before) => ({ ...before, status: shareStructure(before.status, next) }));
      wait(next ? untilNext(next) : USUAL_MS);
    };
    if (asked > 0) void look();
    else wait(untilNext(loaded));
    return () => {
      ended.abort();
      clearTimeout(timer);
    };
  }, [filmId, asked, loaded]);
  return [known.status, refresh];
}
