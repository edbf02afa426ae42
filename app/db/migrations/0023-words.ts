import { renameWords } from "./rename-words";

/** Renamed: presets, flags, movements, and switches. */
const WORDS: readonly [string, string][] = [
  ['"manner"', '"movement"'],
  ['"enlargement"', '"largestScale"'],
  ['"seenLooks"', '"reviewedFlags"'],
  ['"hold":', '"shortestStay":'],
  // In a list of settings; the easing of the same name follows a colon.
  ['["hold"', '["shortestStay"'],
  [',"hold"', ',"shortestStay"'],
  ['"turns":"auto"', '"switchBy":"auto"'],
  ['"turns":"jump"', '"switchBy":"cut"'],
  ['"turns":"move"', '"switchBy":"pan"'],
  ['["turns"', '["switchBy"'],
  [',"turns"]', ',"switchBy"]'],
  ["speaker-move", "speaker-pan"],
];

export const migration0023 = `
ALTER TABLE house_styles RENAME TO presets;
ALTER TABLE versions RENAME COLUMN seen_looks TO reviewed_flags;
${renameWords(WORDS)}
`;
