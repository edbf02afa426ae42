import { useEffect, useState } from "react";
import { toast } from "sonner";

/**
 * Loads a value, anew whenever one of its dependencies changes; null until it is there.
 * @param failed message shown if loading fails
 */
export function useLoaded<T>(load: () => Promise<T>, from: readonly unknown[], failed: string): T | null {
  const [loaded, setLoaded] = useState<T | null>(null);
  useEffect(() => {
    let isOver = false;
    void load().then(
      (value) => !isOver && setLoaded(value),
      () => !isOver && toast.error(failed),
    );
    return () => {
      isOver = true;
    };
    // What is loaded depends on nothing else.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, from);
  return loaded;
}
