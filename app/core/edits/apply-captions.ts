import { byStart } from "../captions/caption";
import type { SingleCommand } from "./command";
import type { FilmState } from "../version/film-state";

type CaptionCommand = Extract<SingleCommand, { type: "change-captions" }>;

/** Removes captions, and puts new or changed ones in order. */
export function applyToCaptions(state: FilmState, { removed, put }: CaptionCommand): FilmState {
  const gone = new Set([...removed, ...put.map(({ id }) => id)]);
  return { ...state, captions: [...state.captions.filter(({ id }) => !gone.has(id)), ...put].sort(byStart) };
}
