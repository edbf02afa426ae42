/** Pieces of proxies that somebody waits for, made out of turn. */
import { existsSync } from "node:fs";
import { pieceCount } from "~/core/time/pieces";
import type { FilmRow } from "~/db/films.server";
import { CancelledError } from "~/media/tool.server";
import { makePieces, missingPieces, pieceFile } from "~/media/proxy.server";
import { requireSource } from "~/library/films/require-source.server";
import { proxyFolder, sourceFile } from "~/db/workplace.server";

/** Pieces made beyond the last one requested: whoever plays will need them too. */
const AHEAD = 3;

/** Pieces of one film being made, in order. */
interface Run {
  filmId: string;
  start: number;
  end: number;
  /** The first that does not exist yet. */
  next: number;
  /** The last that was requested. */
  asked: number;
  /** Who waits, and for which. */
  waiting: Set<{ piece: number; ready: () => void; failed: (error: unknown) => void }>;
  controller: AbortController;
  /** Whether nobody may continue it: the film is being removed, or the server is stopping. */
  isGivenUp: boolean;
  /** Resolves when nothing of it is under way. */
  ended: Promise<void>;
}

const runs = new Set<Run>();

function begin({ id, name, info, file }: FilmRow, piece: number): Run {
  const folder = proxyFolder(id);
  const wanted = missingPieces(folder, info, piece) ?? { start: piece, end: piece + 1 };
  const controller = new AbortController();
  const places = { filmId: id, ...wanted, next: wanted.start, asked: piece };
  const run: Run = { ...places, waiting: new Set(), controller, isGivenUp: false, ended: Promise.resolve() };
  runs.add(run);
  const settle = (piece: number) => {
    for (const waiting of run.waiting) {
      if (waiting.piece > piece) continue;
      run.waiting.delete(waiting);
      waiting.ready();
    }
  };
  const options = {
    signal: run.controller.signal,
    onPiece: (made: number) => {
      run.next = made + 1;
      settle(made);
      if (made >= run.asked + AHEAD) run.controller.abort();
    },
  };
  run.ended = makePieces({ file: sourceFile({ file }), name, info }, folder, wanted, options)
    // First of all, so that nobody joins what has ended.
    .finally(() => runs.delete(run))
    .then(() => settle(run.end))
    .catch((error: unknown) => run.waiting.forEach(({ failed }) => failed(error)));
  return run;
}

/**
 * Waits for a piece of a film's proxy, and makes it if it does not exist. Work that nobody waits for stops.
 * @returns the piece's file; null if the film has no such piece
 * @throws FilmError if the film cannot be decoded, or its file is missing; CancelledError if the signal is aborted
 */
export async function piece(film: FilmRow, number: number, signal: AbortSignal): Promise<string | null> {
  if (number >= pieceCount(film.info)) return null;
  const folder = proxyFolder(film.id);
  const file = pieceFile(folder, number);
  const comesTo = ({ filmId, start, next, end }: Run) =>
    filmId === film.id && number >= start && number < end && number <= next + AHEAD;
  const underWay = [...runs].find(comesTo);
  if (underWay) underWay.asked = Math.max(underWay.asked, number);
  if (!existsSync(file)) requireSource(film);
  while (!existsSync(file)) {
    const run = [...runs].find((one) => comesTo(one) && number >= one.next) ?? begin(film, number);
    await made(run, number, signal).catch((error: unknown) => {
      // A run that stopped for other reasons is followed by another.
      if (signal.aborted || run.isGivenUp || !(error instanceof CancelledError)) throw error;
    });
  }
  return file;
}

/** Waits for a piece of a run; the run stops when nobody waits for it. */
const made = (run: Run, piece: number, signal: AbortSignal): Promise<void> =>
  new Promise((ready, failed) => {
    const waiting = { piece, ready, failed };
    run.waiting.add(waiting);
    const giveUp = () => {
      if (!run.waiting.delete(waiting)) return;
      failed(new CancelledError());
      if (run.waiting.size === 0) run.controller.abort();
    };
    signal.addEventListener("abort", giveUp, { once: true });
    if (signal.aborted) giveUp();
  });

/** Makes the first piece before anybody requests it: a newly added film is likely to be opened. */
export function prepareFirstPiece(film: FilmRow): void {
  // If it fails, the request for it will say why.
  piece(film, 0, new AbortController().signal).catch(() => {});
}

/** Stops all pieces being made, of one film or of all; no half-made files remain. */
export async function stopPieces(filmId?: string): Promise<void> {
  const stopped = [...runs].filter((run) => filmId === undefined || run.filmId === filmId);
  for (const run of stopped) {
    run.isGivenUp = true;
    run.controller.abort();
  }
  await Promise.all(stopped.map(({ ended }) => ended));
}
