import { useEffect } from "react";
import { useFetcher } from "react-router";
import { toast } from "sonner";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.filmActions;

/** Commands on a film of the library. */
export type FilmIntent =
  | { intent: "rename"; name: string }
  | {
      intent:
        | "replace"
        | "give-up-replacement"
        | "put-earlier-back"
        | "duplicate"
        | "put-away"
        | "take-out"
        | "delete"
        | "bring-back"
        | "delete-for-good"
        | "clear-copy"
        | "clear-renders";
    };

/** Why a command failed; null where it succeeded. */
export interface FilmAnswer {
  error: string | null;
}

/** Message after a command on a film, and the command that undoes it. */
const UNDOABLE = {
  "put-away": { said: t.isPutAway, undo: "take-out" },
  delete: { said: t.isDeleted, undo: "bring-back" },
  replace: { said: t.hasItsNewFile, undo: "put-earlier-back" },
} as const;

const isUndoable = (intent: FilmIntent["intent"]): intent is keyof typeof UNDOABLE => intent in UNDOABLE;

/** Sends commands on a film, with a message where it can be undone; `isBusy` until it is done. */
export function useFilmActions({ id, name }: { id: string; name: string }): {
  act: (intent: FilmIntent) => void;
  isBusy: boolean;
} {
  const { submit, state, data } = useFetcher<FilmAnswer>();
  useEffect(() => {
    if (data?.error) toast.error(data.error);
  }, [data]);
  const send = (intent: FilmIntent) => submit({ ...intent, filmId: id }, { method: "post", action: "/?index" });
  const tell = (text: string, undo: FilmIntent) =>
    toast(text, { action: { label: t.undo, onClick: () => void send(undo) } });
  const act = async (intent: FilmIntent) => {
    await send(intent);
    if (intent.intent === "rename") tell(t.isCalledNow(name, intent.name), { intent: "rename", name });
    if (!isUndoable(intent.intent)) return;
    const { said, undo } = UNDOABLE[intent.intent];
    tell(`${name} ${said}.`, { intent: undo });
  };
  return { act: (intent) => void act(intent), isBusy: state !== "idle" };
}
