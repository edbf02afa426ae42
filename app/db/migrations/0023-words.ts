import { renameWords } from "./rename-words";

/** What was renamed: presets, flags, movements, and how the window switches. */
const WORDS: readonly [string, string][] = [
  ['"manner"', '"movement"'],
  ['"enlargement"', '"largestScale"'],
  ['"seenLooks"', '"reviewedFlags"'],
  ['"hold":', '"shortestStay":'],
  // In a list of settings, and not the easing of that name, which follows a colon.
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
