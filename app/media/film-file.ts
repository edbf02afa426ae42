import type { Size } from "~/core/geometry/box";
import type { FilmGrid } from "~/core/time/film-grid";
import type { Rate } from "~/core/time/rate";
import { type Clock, clockOf } from "~/core/time/timecode";

/** Where a film's grid is in its file, and how to get there. */
export interface GridInFile extends Omit<FilmGrid, "rate" | "frames"> {
  /** Seconds before a picture at which to begin reading, so that it is not missed. */
  seekMargin: number;
  /** Seconds that the file's time is counted in; 0 where that is not known. */
  timeBase: number;
}

/** A sound of a film. */
export interface FilmSound {
  codec: string;
  /** Which of the file's sounds it is, from 0 on. */
  index: number;
  /** Seconds, in the file's own time, at which it begins. */
  start: number;
}

/** What a file says of one of its sounds. */
export interface SoundTrack extends FilmSound {
  channels: number;
  /** As in ISO 639, if the file says. */
  language: string | null;
  title: string | null;
}

/** What is known of a film before a single frame is decoded. */
export interface FilmInfo {
  /** Size as displayed: after rotation, with square pixels. */
  picture: Size;
  rate: Rate;
  /** Frames on the film's own grid. */
  frames: number;
  /** Frames that the file claims to have after these, and that are not in it: it was cut off. */
  cutOff: number;
  /** Whether the file's times start over somewhere: it must be straightened before it is worked with. */
  timeBreaks: boolean;
  /** Where the frames of the grid are in the file's own time. */
  grid: GridInFile;
  /** Whether the stored pixels are not square, and are made so when decoding. */
  nonSquarePixels: boolean;
  /** Whether a frame holds two fields, which are of different moments, to be made into one when decoding. */
  interlaced: boolean;
  /** Whether each field becomes a frame of its own: the grid then has twice as many. */
  fields: boolean;
  /** The sound that is used. */
  audio: FilmSound | null;
  /** All sounds of the file. */
  sounds: SoundTrack[];
  /** The timecode that the file begins with, as it is written in it. */
  startTimecode: string | null;
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

/** How a film's frames are counted in timecode. */
export const clockOfFilm = ({ rate, startTimecode }: Pick<FilmInfo, "rate" | "startTimecode">): Clock =>
  clockOf(rate, startTimecode);
