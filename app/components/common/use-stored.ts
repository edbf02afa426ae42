import { useCallback, useSyncExternalStore } from "react";

const listeners = new Set<() => void>();

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  window.addEventListener("storage", listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener("storage", listener);
  };
}

/** A choice of one of several words that this browser remembers; `usual` where it has none, or cannot. */
export function useStored<Choice extends string>(
  key: string,
  choices: readonly Choice[],
  usual: Choice,
): [Choice, (choice: Choice) => void] {
  const stored = useSyncExternalStore(
    subscribe,
    () => localStorage.getItem(key),
    () => null,
  );
  const set = useCallback(
    (choice: Choice) => {
      localStorage.setItem(key, choice);
      for (const listener of listeners) listener();
    },
    [key],
  );
  return [choices.find((choice) => choice === stored) ?? usual, set];
}
