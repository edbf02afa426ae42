import { createSelectorCreator, lruMemoize } from "reselect";
import type { DeskGiven } from "./desk-model";

/** What follows from some of what the desk has: computed again only when one of them is another. Keeps the last result. */
export const deskSelector = createSelectorCreator({
  memoize: lruMemoize,
  argsMemoize: lruMemoize,
}).withTypes<DeskGiven>();
