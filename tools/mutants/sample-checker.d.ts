import type { Mutant } from "./sample";

/** What tells a mutant from all others, in whichever folder its file is. */
export function mutantKey(mutant: Mutant): string;
