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

const inWordsOfToday = (column: string): string =>
  WORDS.reduce((value, [from, to]) => `replace(${value}, '${from}', '${to}')`, column);

const COLUMNS: readonly [table: string, ...columns: string[]][] = [
  ["films", "attention"],
  ["shots", "subject"],
  ["versions", "usual"],
  ["shot_framings", "settings"],
  ["edits", "command", "inverse"],
  ["presets", "versions"],
  ["replaced_sources", "project", "edits", "checkpoints"],
  ["checkpoints", "kept"],
];

export const migration0023 = `
ALTER TABLE house_styles RENAME TO presets;
ALTER TABLE versions RENAME COLUMN seen_looks TO reviewed_flags;
${COLUMNS.map(([table, ...columns]) => `UPDATE ${table} SET ${columns.map((column) => `${column} = ${inWordsOfToday(column)}`).join(", ")};`).join("\n")}
`;
