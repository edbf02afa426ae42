import { createHash } from "node:crypto";
import type { FilmState, VersionState } from "~/core/version/film-state";

/** A digest of everything in a version that determines its file: equal digests stand for equal files. */
export function exportPrint(state: FilmState, version: VersionState): string {
  // Names, reviewed flags and limits change no picture.
  const { id, name, reviewedFlags, checkLimits, limitSeconds, output, shots, handKeys, ...rest } = version;
  const { captions } = rest;
  const isCaptioned = captions.burnt || captions.sidecar || captions.track;
  const all = [
    rest,
    [...shots].sort(([a], [b]) => (a < b ? -1 : 1)),
    handKeys,
    state.shots,
    state.clips,
    state.marks,
    [...state.trackEdits],
    state.people.map(({ id: who, mergedInto }) => [who, mergedInto]),
    isCaptioned ? state.captions : [],
  ];
  return createHash("sha256").update(JSON.stringify(all)).digest("hex").slice(0, 24);
}
