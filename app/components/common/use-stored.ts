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

/** Text that this browser remembers; null where there is none, and on the server. */
export const useStoredText = (key: string): string | null =>
  useSyncExternalStore(
    subscribe,
    () => localStorage.getItem(key),
    () => null,
  );

/** Stores a text in this browser; null removes it. */
export function storeText(key: string, text: string | null): void {
  if (text === null) localStorage.removeItem(key);
  else localStorage.setItem(key, text);
  for (const listener of listeners) listener();
}

/** A choice of several words, remembered by this browser; `usual` where none is stored or storage is unavailable. */
export function useStored<Choice extends string>(
  key: string,
  choices: readonly Choice[],
  usual: Choice,
): [Choice, (choice: Choice) => void] {
  const stored = useStoredText(key);
  const set = useCallback((choice: Choice) => storeText(key, choice), [key]);
  return [choices.find((choice) => choice === stored) ?? usual, set];
}
