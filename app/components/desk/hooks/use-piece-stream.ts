import { useEffect, useMemo, useState } from "react";
import type { Rate } from "~/core/time/rate";
import { type LightCopy, PieceStream } from "../model/piece-stream";
import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.usePieceStream;

/** Milliseconds of waiting that are not announced. */
const PATIENCE_MS = 400;

/**
 * A film's proxy; identical for as long as it is the same film.
 * @param isPrepared whether it can exist yet
 */
export function useLightCopy(
  film: {
    id: string;
    rate: Rate;
    frames: number;
    audio: { index: number } | null;
    /** Differs from file to file. */
    fingerprint: string | null;
  },
  isPrepared: boolean,
): LightCopy {
  const { id, frames, fingerprint } = film;
  const { num, den } = film.rate;
  const sound = film.audio?.index ?? null;
  return useMemo(() => {
    // With another audio track, rate or file, the same piece is another one.
    const kind = `?sound=${sound ?? "none"}&rate=${num}-${den}&of=${fingerprint ?? ""}${isPrepared ? "" : "-soon"}`;
    const pieceUrl = (piece: number) => `/media/${id}/proxy/${piece}.mp4${kind}`;
    return { pieceUrl, rate: { num, den }, frames, hasSound: sound !== null };
  }, [id, num, den, frames, sound, fingerprint, isPrepared]);
}

/**
 * Plays a proxy in a video element.
 *
 * @returns why there is no picture at the playhead; null while there is one
 */
export function usePieceStream(video: HTMLVideoElement | null, copy: LightCopy): string | null {
  const [notice, setNotice] = useState<string | null>(null);
  useEffect(() => {
    if (!video) return;
    let patience: ReturnType<typeof setTimeout> | undefined;
    const stream = new PieceStream(video, copy, {
      onWaiting: (waiting) => {
        clearTimeout(patience);
        if (!waiting) setNotice(null);
        else patience = setTimeout(() => setNotice(t.preparing), PATIENCE_MS);
      },
      onFailed: (message) => {
        clearTimeout(patience);
        setNotice(message);
      },
    });
    return () => {
      clearTimeout(patience);
      stream.dispose();
    };
  }, [video, copy]);
  return notice;
}
