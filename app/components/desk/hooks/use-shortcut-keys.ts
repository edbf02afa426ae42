import { useCallback, useMemo } from "react";
import { storeText, useStoredText } from "~/components/common/use-stored";
import { ChangedKeys, keysWith, namesOf, type ShortcutId, type ShortcutKeys } from "../model/shortcuts";

const KEPT = "glad-pan shortcuts";

function readChanged(text: string | null): ChangedKeys {
  try {
    return ChangedKeys.parse(JSON.parse(text ?? "{}"));
  } catch {
    // Stored by another version, or not by us.
    return {};
  }
}

/** Changes the keys of a shortcut; null restores the usual ones. */
export function changeKeys(id: ShortcutId, keys: string | null): void {
  const { [id]: _, ...rest } = readChanged(localStorage.getItem(KEPT));
  storeText(KEPT, JSON.stringify(keys === null ? rest : { ...rest, [id]: keys }));
}

/** Restores the usual keys of all shortcuts. */
export const resetKeys = (): void => storeText(KEPT, null);

/** The keys of each shortcut, as this browser remembers them. */
export function useShortcutKeys(): ShortcutKeys {
  const text = useStoredText(KEPT);
  return useMemo(() => keysWith(readChanged(text)), [text]);
}

/** Gives a shortcut's keys as they are shown in hints. */
export function useShortcutText(): (id: ShortcutId) => string {
  const keys = useShortcutKeys();
  return useCallback((id) => namesOf(keys[id]).join(" "), [keys]);
}
