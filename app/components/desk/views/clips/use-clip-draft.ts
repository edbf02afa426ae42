import { arrayMove } from "@dnd-kit/sortable";
import { useState } from "react";
import type { PickableFilm } from "~/components/library/film-picker";
import type { Clip } from "~/core/clips/clip";
import type { Rate } from "~/core/time/rate";

/** A clip as it is going to be in the film. */
export interface DraftClip {
  /** To know it by in the list. */
  key: string;
  name: string;
  /** Of the clip that the film has; null for a new one. */
  clipId: string | null;
  /** The film that it is going to be made of; null where that stays. */
  from: PickableFilm | null;
}

/** A film that is one file, which is its own only clip. */
interface WholeFilm {
  id: string;
  name: string;
  frames: number;
  rate: Rate;
}

/** The clips of a film as they are. */
function asTheyAre(film: Pick<WholeFilm, "id" | "name">, clips: readonly Clip[]): DraftClip[] {
  if (clips.length === 0) return [{ key: film.id, name: film.name, clipId: film.id, from: null }];
  return clips.map(({ id, name }) => ({ key: id, name, clipId: id, from: null }));
}

/** Whether a draft is another arrangement than the film's. */
export function isDrafted(draft: readonly DraftClip[], clips: readonly Clip[], film: WholeFilm): boolean {
  const now = asTheyAre(film, clips);
  return draft.length !== now.length || draft.some(({ clipId, from }, i) => from !== null || clipId !== now[i]!.clipId);
}

export interface ClipDraft {
  clips: readonly DraftClip[];
  move: (from: number, to: number) => void;
  add: (films: readonly PickableFilm[]) => void;
  replace: (clip: DraftClip, film: PickableFilm) => void;
  takeOut: (clip: DraftClip) => void;
  reset: () => void;
}

/** Clips that are put in order, added and taken out, before the film is made of them. */
export function useClipDraft(film: WholeFilm, clips: readonly Clip[]): ClipDraft {
  const { id, name } = film;
  const order = clips.map((clip) => clip.id).join(" ");
  const [draft, setDraft] = useState(() => asTheyAre({ id, name }, clips));
  const [draftedOf, setDraftedOf] = useState(order);
  const reset = () => setDraft(asTheyAre({ id, name }, clips));
  // Of another arrangement, by whomever it was made, what was drafted before is no draft any more.
  if (draftedOf !== order) {
    setDraftedOf(order);
    reset();
  }
  return {
    clips: draft,
    move: (from, to) => setDraft((all) => arrayMove(all, from, to)),
    add: (films) =>
      setDraft((all) => [
        ...all,
        ...films.map((from) => ({ key: crypto.randomUUID(), name: from.name, clipId: null, from })),
      ]),
    replace: (clip, from) =>
      setDraft((all) => all.map((other) => (other.key === clip.key ? { ...other, name: from.name, from } : other))),
    takeOut: (clip) => setDraft((all) => all.filter(({ key }) => key !== clip.key)),
    reset,
  };
}
