/**
 * The proxy of a film is stored in pieces of some seconds, so that any of them can be made first and be played while the
 * others do not exist yet.
 */
import { type FrameRange, framesPerSecond, type Rate } from "./rate";

/** Frames between key frames: few, so that seeking is quick. A piece is a whole number of them. */
export const KEY_FRAME_INTERVAL = 12;
const PIECE_SECONDS = 4;

interface Length {
  frames: number;
  rate: Rate;
}

/** Frames in each piece but the last. */
export const pieceFrames = (rate: Rate): number =>
  KEY_FRAME_INTERVAL * Math.max(1, Math.round((PIECE_SECONDS * framesPerSecond(rate)) / KEY_FRAME_INTERVAL));

export const pieceCount = ({ frames, rate }: Length): number => Math.ceil(frames / pieceFrames(rate));

/** The piece that contains a frame, from 0. */
export const pieceAt = (frame: number, rate: Rate): number => Math.floor(frame / pieceFrames(rate));

/** Frames of a piece. */
export function pieceRange(piece: number, { frames, rate }: Length): FrameRange {
  const length = pieceFrames(rate);
  return { start: piece * length, end: Math.min(frames, (piece + 1) * length) };
}
