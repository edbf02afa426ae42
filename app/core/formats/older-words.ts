/** Reads documents of older versions of Glad Pan in today's words. */

/** Names that have changed since version 1 of projects and reports. */
const NAMES: Readonly<Record<string, string>> = {
  manner: "movement",
  mannerReason: "movementReason",
  enlargement: "largestScale",
  seenLooks: "reviewedFlags",
  looks: "flags",
  seen: "reviewed",
  turns: "switches",
  drops: "leftOut",
  stretches: "ranges",
};
/** Values that have changed since then. */
const VALUES: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  kind: { "speaker-move": "speaker-pan", turns: "switches" },
  begins: { turn: "switch" },
  transition: { turn: "switch" },
};
const SWITCHES: Readonly<Record<string, string>> = { auto: "auto", jump: "cut", move: "pan" };

/** Documents of ours are never nested deeper, and no schema accepts one that is. */
const MOST_DEPTH = 50;

const isSwitch = (value: unknown): value is string => typeof value === "string" && value in SWITCHES;

function entry(key: string, value: unknown, depth: number): [string, unknown] {
  if (key === "hold" && typeof value === "number") return ["shortestStay", value];
  if (key === "turns" && isSwitch(value)) return ["switchBy", SWITCHES[value]];
  if (key === "by" && isSwitch(value)) return ["by", SWITCHES[value]];
  // In people, `seen` is an amount.
  if (key === "seen" && typeof value !== "boolean") return [key, value];
  const renamed = typeof value === "string" && VALUES[key]?.[value];
  if (renamed) return [key, renamed];
  return [NAMES[key] ?? key, inWordsOfToday(value, depth)];
}

/** A value from a document of version 1, with the names of version 2. */
function inWordsOfToday(value: unknown, depth = 0): unknown {
  if (typeof value !== "object" || value === null || depth > MOST_DEPTH) return value;
  if (Array.isArray(value)) return value.map((each) => inWordsOfToday(each, depth + 1));
  return Object.fromEntries(Object.entries(value).map(([key, inside]) => entry(key, inside, depth + 1)));
}

/** A document as it would be written today: version 1 in the words of version 2, any other as it is. */
export function asWrittenToday(document: unknown): unknown {
  const { format, version } = (document ?? {}) as { format?: unknown; version?: unknown };
  if (version !== 1) return document;
  const renamed = inWordsOfToday(document) as object;
  return { ...renamed, version: 2, format: format === "glad-pan/looks" ? "glad-pan/flags" : format };
}
