import { useEffect } from "react";
import { useRevalidator } from "react-router";
import { tellWhetherAnswering } from "./not-answering";

/** Whether a job has not ended yet. */
export const isUnderWay = ({ state }: { state: string }): boolean => state === "queued" || state === "running";

/**
 * Whether the server answers. A loader that runs while it does not would replace the page, with everything open or under
 * way in it.
 */
async function answers(): Promise<boolean> {
  const alive = await fetch("/favicon.svg", { method: "HEAD", cache: "no-store" }).then(
    ({ ok }) => ok,
    () => false,
  );
  tellWhetherAnswering(alive);
  return alive;
}

/**
 * Runs the page's loaders again at intervals while active. The next round waits for the answer itself and not for the
 * revalidator's state: the router sets that state in a transition, and a busy page may never draw the "loading" between two
 * "idle"s.
 */
export function usePolling(active: boolean, intervalMs: number): void {
  const { revalidate } = useRevalidator();
  useEffect(() => {
    if (!active) return;
    const ended = new AbortController();
    let timer: ReturnType<typeof setTimeout>;
    const round = async () => {
      if (await answers()) await revalidate();
      if (!ended.signal.aborted) ask();
    };
    const ask = () => {
      timer = setTimeout(() => void round(), intervalMs);
    };
    ask();
    return () => {
      ended.abort();
      clearTimeout(timer);
    };
  }, [active, intervalMs, revalidate]);
}
