import PQueue from "p-queue";
import { startTransition, useCallback, useMemo, useRef, useState } from "react";
import { useBeforeUnload, useRevalidator } from "react-router";
import { toast } from "sonner";
import type { Command } from "~/core/edits/command";
import { type EditAnswer, NO_ANSWER, problemOf, readOutcome } from "./edit-answer";

interface Outcome extends EditAnswer {
  revision: number;
}

interface Pending {
  id: number;
  command: Command;
  /** The revision that the command made, once the server has answered. */
  revision: number | null;
}

export interface Edits {
  send: (command: Command) => void;
  undo: () => void;
  redo: () => void;
  /** Shows what a command would do, until another is shown or one is sent; null shows nothing. */
  preview: (command: Command | null) => void;
  /** Commands that the page's data does not show yet. */
  pending: Command[];
}

/**
 * Sends changes to the server one after the other, each on the revision that the one before has made. Until the
 * page's data has caught up, they are in `pending`, so that the desk can show them at once.
 */
export function useEdits(filmId: string, loadedRevision: number): Edits {
  const { revalidate } = useRevalidator();
  const queue = useMemo(() => new PQueue({ concurrency: 1 }), []);
  const newest = useRef(loadedRevision);
  const serial = useRef(0);
  const [sent, setSent] = useState<Pending[]>([]);
  const [previewed, setPreviewed] = useState<Command | null>(null);

  // What the server has not answered yet would be lost with the page.
  useBeforeUnload(
    useCallback(
      (event) => {
        if (queue.size + queue.pending > 0) event.preventDefault();
      },
      [queue],
    ),
  );

  const post = useCallback(
    async (change: { do: "edit"; command: Command } | { do: "undo" | "redo" }): Promise<Outcome> => {
      newest.current = Math.max(newest.current, loadedRevision);
      const body = JSON.stringify({ ...change, revision: newest.current });
      const headers = { "content-type": "application/json" };
      const outcome = await fetch(`/films/${filmId}/edit`, { method: "POST", headers, body })
        .then(readOutcome)
        .catch(() => NO_ANSWER);
      newest.current = outcome.revision ?? newest.current;
      const problem = problemOf(outcome);
      if (problem) toast[outcome.stale ? "warning" : "error"](problem);
      return { ...outcome, revision: newest.current };
    },
    [filmId, loadedRevision],
  );

  const send = useCallback(
    (command: Command) => {
      const id = serial.current++;
      setSent((all) => [...all, { id, command, revision: null }]);
      setPreviewed(null);
      void queue.add(async () => {
        const outcome = await post({ do: "edit", command });
        setSent((all) =>
          outcome.error
            ? all.filter((other) => other.id !== id)
            : all.map((other) => (other.id === id ? { ...other, revision: outcome.revision } : other)),
        );
        await revalidate();
      });
    },
    [post, queue, revalidate],
  );

  const step = useCallback(
    (direction: "undo" | "redo") =>
      void queue.add(async () => {
        const outcome = await post({ do: direction });
        if (outcome.concerned) toast(`${direction === "undo" ? "Undone" : "Redone"}: ${outcome.concerned}`);
        await revalidate();
      }),
    [post, queue, revalidate],
  );

  // A pointer moves faster than the desk can be drawn: what is out of date by then need not be.
  const preview = useCallback((command: Command | null) => startTransition(() => setPreviewed(command)), []);
  const pending = useMemo(() => {
    const open = sent.filter(({ revision }) => revision === null || revision > loadedRevision);
    return [...open.map(({ command }) => command), ...(previewed ? [previewed] : [])];
  }, [sent, loadedRevision, previewed]);
  return useMemo(
    () => ({ send, undo: () => step("undo"), redo: () => step("redo"), preview, pending }),
    [send, step, preview, pending],
  );
}
