import { useState } from "react";
import { shareStructure } from "~/core/basics/structure";

/**
 * A value that is loaded anew from time to time, made of the very values of the one before wherever the two hold the
 * same: what depends on a part of it that has not changed stays as it is.
 */
export function useShared<T>(loaded: T): T {
  const [kept, setKept] = useState({ loaded, shared: loaded });
  if (kept.loaded === loaded) return kept.shared;
  // As React has it for what follows from the value before: set while drawing, and drawn again at once.
  const shared = shareStructure(kept.shared, loaded);
  setKept({ loaded, shared });
  return shared;
}
