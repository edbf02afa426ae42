import { useEffect, useReducer, useState } from "react";
import { FilmStatus } from "~/core/film-status";
import { tellWhetherAnswering } from "~/components/common/not-answering";
import { isUnderWay } from "~/components/common/use-polling";

/** Milliseconds between two looks while something is going on; fewer for what somebody waits for. */
const USUAL_MS = 800;
const SOON_MS = 200;

async function fetchStatus(filmId: string): Promise<FilmStatus | null> {
  const status = await fetch(`/films/${filmId}/status`, { cache: "no-store" })
    .then(async (response) => (response.ok ? FilmStatus.parse(await response.json()) : null))
    .catch(() => null);
  tellWhetherAnswering(status !== null);
  return status;
}

/** Milliseconds until the next look; null where nothing is going on. */
function untilNext({ jobs, exports }: FilmStatus): number | null {
  if (jobs.some((job) => job.kind === "follow" && isUnderWay(job))) return SOON_MS;
  return jobs.some(isUnderWay) || exports.some(isUnderWay) ? USUAL_MS : null;
}

/**
 * What is being done to a film: as it was loaded, and looked at again while something is going on.
 *
 * @returns the status, and what has it looked at again at once
 */
export function useStatus(filmId: string, loaded: FilmStatus): [FilmStatus, () => void] {
  const [status, setStatus] = useState(loaded);
  const [asked, refresh] = useReducer((count: number) => count + 1, 0);
  useEffect(() => setStatus(loaded), [loaded]);
  useEffect(() => {
    let isOver = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const wait = (ms: number | null) => {
      if (ms !== null) timer = setTimeout(() => void look(), ms);
    };
    const look = async () => {
      const next = await fetchStatus(filmId);
      if (isOver) return;
      if (next) setStatus(next);
      wait(next ? untilNext(next) : USUAL_MS);
    };
    if (asked > 0) void look();
    else wait(untilNext(loaded));
    return () => {
      isOver = true;
      clearTimeout(timer);
    };
  }, [filmId, asked, loaded]);
  return [status, refresh];
}
