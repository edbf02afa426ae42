import { framesPerSecond } from "~/core/time/rate";
import type { FilmFile } from "~/media/film-file";
import { readAhead } from "~/media/read-ahead";
import { listen, SECONDS_PER_PIECE } from "~/media/voice.server";

/** The voice detector needs some sound before the speech. */
const LISTEN_BEFORE_SECONDS = 3;
/** Pieces listened to in advance, while the same seconds are watched. */
const LISTENED_AHEAD = Math.round(10 / SECONDS_PER_PIECE);

/** Runs the voice detector on a film, from a frame on, as far as the film has been watched. */
export class Listener {
  readonly speech: number[];
  private readonly pieces: AsyncGenerator<number>;

  constructor(film: FilmFile, from: number, signal?: AbortSignal) {
    const fps = framesPerSecond(film.info.rate);
    const first = Math.max(0, from - Math.round(LISTEN_BEFORE_SECONDS * fps));
    // Earlier speech is not needed; positions are rounded to half a piece, 16 ms.
    this.speech = new Array<number>(Math.round(first / fps / SECONDS_PER_PIECE)).fill(0);
    this.pieces = readAhead(listen(film, first, signal), LISTENED_AHEAD);
  }

  async upTo(seconds: number): Promise<void> {
    while (this.speech.length * SECONDS_PER_PIECE < seconds) {
      const next = await this.pieces.next();
      if (next.done) return;
      this.speech.push(next.value);
    }
  }

  async dispose(): Promise<void> {
    await this.pieces.return(undefined);
  }
}
