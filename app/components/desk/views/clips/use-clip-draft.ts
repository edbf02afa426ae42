import { arrayMove } from "@dnd-kit/sortable";
import { useState } from "react";
import type { PickableFilm } from "~/components/library/film-picker";
import type { Clip } from "~/core/clips/clip";
import type { Rate } from "~/core/time/rate";

/** A clip in the draft of a new arrangement. */
export interface DraftClip {
  /** Its key in the list. */
  key: string;
  name: string;
  /** The film's clip; null for a new one. */
  clipId: string | null;
  /** The film it will be made from; null where that stays. */
  from: PickableFilm | null;
}

/** A film that is one file, which counts as its only clip. */
interface WholeFilm {
  id: string;
  name: string;
  frames: number;
  rate: Rate;
}

/** The film's present clips as a draft. */
function asTheyAre(film: Pick<WholeFilm, "id" | "name">, clips: readonly Clip[]): DraftClip[] {
  if (clips.length === 0) return [{ key: film.id, name: film.name, clipId: film.id, from: null }];
  return clips.map(({ id, name }) => ({ key: id, name, clipId: id, from: null }));
}

/** Whether a draft differs from the film's arrangement. */
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

/** A draft of clips, rearranged, added and removed, before the film is made from it. */
export function useClipDraft(film: WholeFilm, clips: readonly Clip[]): ClipDraft {
  const { id, name } = film;
  const order = clips.map((clip) => clip.id).join(" ");
  const [draft, setDraft] = useState(() => asTheyAre({ id, name }, clips));
  const [draftedOf, setDraftedOf] = useState(order);
  const reset = () => setDraft(asTheyAre({ id, name }, clips));
  // Once the arrangement has changed, by whomever, an earlier draft is void.
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
