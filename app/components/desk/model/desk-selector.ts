import { createSelectorCreator, lruMemoize } from "reselect";
import type { DeskGiven } from "./desk-model";

/** A selector of the desk's state: computed again only when one of its inputs changes. Keeps its last result. */
export const deskSelector = createSelectorCreator({
  memoize: lruMemoize,
  argsMemoize: lruMemoize,
}).withTypes<DeskGiven>();
