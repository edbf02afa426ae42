import type { Change, EditAnswer, History } from "~/core/edits/answer";
import { applyEdit } from "~/core/edits/apply";
import type { Command } from "~/core/edits/command";
import { applyDifference } from "~/core/edits/difference";
import type { FilmState } from "~/core/version/film-state";
import { Refusal } from "~/core/basics/refusal";
import { shareStructure } from "~/core/basics/structure";
import { problemOf } from "./edit-answer";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.editSession;

/** A film's state at a revision, as the server has it. */
export interface LoadedState {
  revision: number;
  state: FilmState;
  history: History;
}

export interface SessionPorts {
  /** Sends a change to the server. Always resolves, with `NO_ANSWER` if need be. */
  post: (change: Change & { revision: number }) => Promise<EditAnswer>;
  /** Shows a message, and offers to try a refused change again. */
  tell: (text: string, tone: "plain" | "warning" | "error", again?: () => void) => void;
  /** Loads the film's state again, when the server knows more than the desk. */
  reload: () => Promise<void>;
}

/** What the desk shows. */
export interface Shown {
  state: FilmState;
  history: History;
  /** The newest revision that the desk knows of. */
  revision: number;
}

interface Waiting {
  command: Command;
}

/** The state after a command; unchanged where it is refused, which the server will explain. */
export function applied(state: FilmState, command: Command): FilmState {
  try {
    return applyEdit(state, command).state;
  } catch (error) {
    if (error instanceof Refusal) return state;
    throw error;
  }
}

/**
 * A film's state on the desk. A change is shown at once, as `applyEdit` makes it, and sent; changes go to the server one
 * after the other, each on the revision of the one before, and the server's result replaces what was shown.
 */
export class EditSession {
  private readonly waiting: Waiting[] = [];
  private last: Promise<void> = Promise.resolve();
  private open = 0;
  private shown: Shown;
  private readonly listeners = new Set<() => void>();

  constructor(
    private confirmed: LoadedState,
    private readonly ports: SessionPorts,
  ) {
    this.shown = confirmed;
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  readonly getShown = (): Shown => this.shown;

  /** Whether the server has not yet answered everything that was sent. */
  readonly isBusy = (): boolean => this.open > 0;

  readonly send = (command: Command): void => {
    const waiting = { command };
    this.waiting.push(waiting);
    this.show();
    this.enqueue(async () => {
      const answer = await this.post({ do: "edit", command }, () => this.send(command));
      this.waiting.splice(this.waiting.indexOf(waiting), 1);
      await this.take(answer);
    });
  };

  readonly step = (direction: "undo" | "redo"): void =>
    this.ask({ do: direction }, (sentence) => `${direction === "undo" ? t.undone : t.redone}: ${sentence}`);

  /** Returns the film to its state after an edit, or at a checkpoint. */
  readonly goBack = (to: Extract<Change, { do: "go-to" | "return-to" }>): void => this.ask(to, (sentence) => sentence);

  /** Takes a newly loaded state, unless the desk knows a newer one. */
  readonly takeLoaded = (loaded: LoadedState): boolean => {
    if (loaded.revision < this.confirmed.revision) return false;
    this.confirmed = loaded;
    this.show();
    return true;
  };

  /** Requests a change that only the server can make, and shows its answer. */
  private ask(change: Change, told: (sentence: string) => string): void {
    this.enqueue(async () => {
      const answer = await this.post(change, () => this.ask(change, told));
      await this.take(answer);
      if (answer.sentence) this.ports.tell(told(answer.sentence), "plain");
    });
  }

  private enqueue(work: () => Promise<void>): void {
    this.open++;
    this.last = this.last.then(work).finally(() => void this.open--);
  }

  private async post(change: Change, again?: () => void): Promise<EditAnswer> {
    const answer = await this.ports.post({ ...change, revision: this.confirmed.revision });
    const problem = problemOf(answer);
    if (problem && answer.stale) this.ports.tell(problem, "warning", again);
    else if (problem) this.ports.tell(problem, "error");
    return answer;
  }

  private async take({ revision, difference, history }: EditAnswer): Promise<void> {
    const { confirmed } = this;
    if (difference && history && revision === confirmed.revision + 1) {
      this.confirmed = { revision, history, state: applyDifference(confirmed.state, difference) };
    } else if (revision !== undefined && revision !== confirmed.revision) {
      await this.ports.reload();
    }
    this.show();
  }

  private show(): void {
    const { state } = this.confirmed;
    const next = this.waiting.reduce((before, { command }) => applied(before, command), state);
    // The server's answer mostly equals what is shown already.
    const shared = shareStructure(this.shown.state, next);
    if (this.waiting.length === 0) this.confirmed = { ...this.confirmed, state: shared };
    const { history, revision } = this.confirmed;
    if (shared === this.shown.state && history === this.shown.history && revision === this.shown.revision) return;
    this.shown = { state: shared, history, revision };
    for (const listener of this.listeners) listener();
  }
}
