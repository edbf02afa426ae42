import { useEffect } from "react";
import { useRevalidator } from "react-router";

/** Whether a job is still to bring something new. */
export const isUnderWay = ({ state }: { state: string }): boolean => state === "queued" || state === "running";

/**
 * Asks the page's loaders again at intervals while something is going on.
 *
 * The next round waits for the answer itself and not for the revalidator's state: the router sets that state in a
 * transition, and a busy page may never draw the "loading" between two "idle"s.
 */
export function usePolling(active: boolean, intervalMs: number): void {
  const { revalidate } = useRevalidator();
  useEffect(() => {
    if (!active) return;
    const ended = new AbortController();
    let timer: ReturnType<typeof setTimeout>;
    const ask = () => {
      timer = setTimeout(() => void revalidate().finally(() => !ended.signal.aborted && ask()), intervalMs);
    };
    ask();
    return () => {
      ended.abort();
      clearTimeout(timer);
    };
  }, [active, intervalMs, revalidate]);
}
