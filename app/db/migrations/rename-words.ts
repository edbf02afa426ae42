/** Columns in which settings, edits and whole states of films are stored as JSON, and rules as text. */
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

/** Replaces words wherever they may be stored since version 23. */
export function renameWords(words: readonly (readonly [from: string, to: string])[]): string {
  const renamed = (column: string): string =>
    words.reduce((value, [from, to]) => `replace(${value}, '${from}', '${to}')`, column);
  return COLUMNS.map(
    ([table, ...columns]) =>
      `UPDATE ${table} SET ${columns.map((column) => `${column} = ${renamed(column)}`).join(", ")};`,
  ).join("\n");
}
