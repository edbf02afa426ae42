import { useState } from "react";
import { shareStructure } from "~/core/basics/structure";

/** Shares structure between a loaded value and the one before it: parts that hold the same keep their identity. */
export function useShared<T>(loaded: T): T {
  const [kept, setKept] = useState({ loaded, shared: loaded });
  if (kept.loaded === loaded) return kept.shared;
  // React's pattern for state derived from its previous value: set while rendering, and rendered again at once.
  const shared = shareStructure(kept.shared, loaded);
  setKept({ loaded, shared });
  return shared;
}
