import { startTransition, useCallback, useMemo, useState, useSyncExternalStore } from "react";
import { useBeforeUnload } from "react-router";
import type { Command } from "~/core/edits/command";
import type { Edits } from "../model/desk-inputs";
import { NO_ANSWER, readAnswer } from "../model/edit-answer";
import { applied, EditSession, type LoadedState, type SessionPorts, type Shown } from "../model/edit-session";
import { tell } from "./tell";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.useEdits;

export interface FilmEdits extends Shown {
  edits: Edits;
  /** Takes the newly loaded state; false if the desk knows a newer one. */
  takeLoaded: EditSession["takeLoaded"];
  /** Whether the server has not yet answered everything that was sent. */
  isBusy: () => boolean;
}

/** Milliseconds for which a refused change can be tried again. */
const OFFERED_MS = 20_000;

const portsOf = (filmId: string, onAnswer: () => void, reload: () => Promise<void>): SessionPorts => ({
  post: async (change) => {
    const headers = { "content-type": "application/json" };
    const answer = await fetch(`/films/${filmId}/edit`, { method: "POST", headers, body: JSON.stringify(change) })
      .then(readAnswer)
      .catch(() => NO_ANSWER);
    onAnswer();
    return answer;
  },
  tell: (text, tone, again) => tell(text, tone, again && { label: t.makeItAgain, run: again, forMs: OFFERED_MS }),
  reload,
});

/**
 * A film's state with the changes made on the desk.
 * @param onAnswer called when the server has answered a change, which may have started a job
 * @param reload loads the film's state again
 */
export function useEdits(
  filmId: string,
  loaded: LoadedState,
  onAnswer: () => void,
  reload: () => Promise<void>,
): FilmEdits {
  const [session] = useState(() => new EditSession(loaded, portsOf(filmId, onAnswer, reload)));
  const [previewed, setPreviewed] = useState<Command | null>(null);
  const shown = useSyncExternalStore(session.subscribe, session.getShown, session.getShown);

  // Changes without an answer would be lost with the page.
  useBeforeUnload(
    useCallback(
      (event) => {
        if (session.isBusy()) event.preventDefault();
      },
      [session],
    ),
  );

  const edits = useMemo<Edits>(
    () => ({
      send: (command) => {
        setPreviewed(null);
        session.send(command);
      },
      undo: () => session.step("undo"),
      redo: () => session.step("redo"),
      goBack: session.goBack,
      // The pointer moves faster than the desk is drawn: outdated previews are skipped.
      preview: (command) => startTransition(() => setPreviewed(command)),
    }),
    [session],
  );
  const state = useMemo(() => (previewed ? applied(shown.state, previewed) : shown.state), [shown.state, previewed]);
  return { ...shown, state, edits, takeLoaded: session.takeLoaded, isBusy: session.isBusy };
}
