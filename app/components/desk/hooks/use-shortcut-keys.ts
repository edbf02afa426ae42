import { useCallback, useMemo } from "react";
import { storeText, useStoredText } from "~/components/common/use-stored";
import { ChangedKeys, keysWith, namesOf, type ShortcutId, type ShortcutKeys } from "../model/shortcuts";

const KEPT = "glad-pan shortcuts";

function readChanged(text: string | null): ChangedKeys {
  try {
    return ChangedKeys.parse(JSON.parse(text ?? "{}"));
  } catch {
    // Of another version, or not ours.
    return {};
  }
}

/** Changes the keys of something; null gives it its usual ones again. */
export function changeKeys(id: ShortcutId, keys: string | null): void {
  const { [id]: _, ...rest } = readChanged(localStorage.getItem(KEPT));
  storeText(KEPT, JSON.stringify(keys === null ? rest : { ...rest, [id]: keys }));
}

/** Gives everything its usual keys again. */
export const resetKeys = (): void => storeText(KEPT, null);

/** Which keys do what, as this browser remembers it. */
export function useShortcutKeys(): ShortcutKeys {
  const text = useStoredText(KEPT);
  return useMemo(() => keysWith(readChanged(text)), [text]);
}

/** Gives the keys of something as they are shown in a hint. */
export function useShortcutText(): (id: ShortcutId) => string {
  const keys = useShortcutKeys();
  return useCallback((id) => namesOf(keys[id]).join(" "), [keys]);
}
