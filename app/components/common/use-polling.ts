import { useEffect } from "react";
import { useRevalidator } from "react-router";

/** Asks the page's loaders again at intervals while something is going on. */
export function usePolling(active: boolean, intervalMs: number): void {
  const { revalidate, state } = useRevalidator();
  useEffect(() => {
    if (!active || state !== "idle") return;
    const timer = setTimeout(() => void revalidate(), intervalMs);
    return () => clearTimeout(timer);
  }, [active, intervalMs, revalidate, state]);
}
