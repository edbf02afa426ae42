import { useCallback, useSyncExternalStore } from "react";
import { ChangedKeys, keysWith, namesOf, type ShortcutId, type ShortcutKeys } from "./shortcuts";

const KEPT = "glad-pan shortcuts";
const listeners = new Set<() => void>();
const USUAL = keysWith({});

let known: { text: string | null; keys: ShortcutKeys } = { text: null, keys: USUAL };

function readChanged(): ChangedKeys {
  try {
    return ChangedKeys.parse(JSON.parse(localStorage.getItem(KEPT) ?? "{}"));
  } catch {
    // Of another version, or not ours.
    return {};
  }
}

function readKeys(): ShortcutKeys {
  const text = localStorage.getItem(KEPT);
  if (text !== known.text) known = { text, keys: keysWith(readChanged()) };
  return known.keys;
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  window.addEventListener("storage", listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener("storage", listener);
  };
}

/** Changes the keys of something; null gives it its usual ones again. */
export function changeKeys(id: ShortcutId, keys: string | null): void {
  const { [id]: _, ...rest } = readChanged();
  localStorage.setItem(KEPT, JSON.stringify(keys === null ? rest : { ...rest, [id]: keys }));
  for (const listener of listeners) listener();
}

/** Gives everything its usual keys again. */
export function resetKeys(): void {
  localStorage.removeItem(KEPT);
  for (const listener of listeners) listener();
}

/** Which keys do what, as this browser remembers it. */
export const useShortcutKeys = (): ShortcutKeys => useSyncExternalStore(subscribe, readKeys, () => USUAL);

/** Gives the keys of something as they are shown in a hint. */
export function useShortcutText(): (id: ShortcutId) => string {
  const keys = useShortcutKeys();
  return useCallback((id) => namesOf(keys[id]).join(" "), [keys]);
}
