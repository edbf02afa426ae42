import type { Size } from "~/core/geometry/box";
import type { Rate } from "~/core/time/rate";

/** What is known of a film before a single frame is decoded. */
export interface FilmInfo {
  /** Size as displayed: after rotation, with square pixels. */
  picture: Size;
  rate: Rate;
  /** Frames on the film's own grid. */
  frames: number;
  /** Whether frames come at uneven times and must be put on the grid when decoding. */
  variableRate: boolean;
  /** Whether the stored pixels are not square, and are made so when decoding. */
  nonSquarePixels: boolean;
  /** Seconds by which the first picture comes after the beginning of the file. */
  videoStart: number;
  audio: { codec: string } | null;
  colour: { transfer: string; matrix: string; range: string };
  videoCodec: string;
  /** What reads the file, as ffmpeg names it: "matroska,webm". */
  container: string;
  bytes: number;
}

/** A film that was looked into. */
export interface FilmFile {
  file: string;
  /** What the film is called in messages. */
  name: string;
  info: FilmInfo;
}
