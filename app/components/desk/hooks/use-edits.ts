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
  /** Takes the state as it was loaded; false if the desk knows a newer one. */
  takeLoaded: EditSession["takeLoaded"];
  /** Whether the server has not answered all that was sent. */
  isBusy: () => boolean;
}

/** How long a change that was refused is offered again, in milliseconds. */
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
 * A film's state with the changes that are made on the desk.
 *
 * @param onAnswer called when the server has answered a change, which may have begun a job
 * @param reload loads the film's state anew
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

  // What the server has not answered yet would be lost with the page.
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
      // A pointer moves faster than the desk can be drawn: what is out of date by then need not be.
      preview: (command) => startTransition(() => setPreviewed(command)),
    }),
    [session],
  );
  const state = useMemo(() => (previewed ? applied(shown.state, previewed) : shown.state), [shown.state, previewed]);
  return { ...shown, state, edits, takeLoaded: session.takeLoaded, isBusy: session.isBusy };
}
