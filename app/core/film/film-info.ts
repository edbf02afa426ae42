/** What is known of a film before a single frame of it is decoded. */
import { z } from "zod";
import { FrameRange, Rate } from "../time/rate";
import { type Clock, clockOf } from "../time/timecode";

/** Pixels of the largest picture that is taken: a little more than 8K (8192 × 4320). */
export const MOST_PIXELS = 36_000_000;
/** Frames of the longest film that is taken: a day at 30 per second. */
export const MOST_FRAMES = 24 * 3600 * 30;

/** What a file calls something. */
const Word = z.string().max(500);

/** A sound of a film. */
export const FilmSound = z.object({
  codec: Word,
  /** Which of the file's sounds it is, from 0 on. */
  index: z.int().min(0),
  /** Seconds, in the file's own time, at which it begins. */
  start: z.number(),
});
export type FilmSound = z.infer<typeof FilmSound>;

/** What a file says of one of its sounds. */
export const SoundTrack = FilmSound.extend({
  channels: z.int().min(0),
  /** As in ISO 639, if the file says. */
  language: Word.nullable(),
  title: Word.nullable(),
});
export type SoundTrack = z.infer<typeof SoundTrack>;

/** Where a film's grid is in its file (`FilmGrid` in time/film-grid.ts), and how to get there. */
export const GridInFile = z.object({
  origin: z.number(),
  fileStart: z.number(),
  lastPicture: z.number(),
  even: z.boolean(),
  held: z.int().min(0),
  longHolds: z.array(FrameRange).max(MOST_FRAMES),
  /** Seconds before a picture at which to begin reading, so that it is not missed. */
  seekMargin: z.number().min(0),
  /** Seconds that the file's time is counted in; 0 where that is not known. */
  timeBase: z.number().min(0).default(0),
  /** Seconds by which the decoder stamps pictures too late, where the file only counts them in the order of decoding. */
  late: z.number().min(0).default(0),
});
export type GridInFile = z.infer<typeof GridInFile>;

/** Defaults are for films that were added before a thing was kept. */
export const FilmInfo = z.object({
  /** Size as displayed: after rotation, with square pixels. */
  picture: z
    .object({ width: z.int().positive(), height: z.int().positive() })
    .refine(({ width, height }) => width * height <= MOST_PIXELS, { error: "The picture is too large" }),
  rate: Rate,
  /** Frames on the film's own grid. */
  frames: z.int().positive().max(MOST_FRAMES),
  /** Frames that the file claims to have after these, and that are not in it: it was cut off. */
  cutOff: z.int().min(0).default(0),
  /** Whether the file's times start over somewhere: it must be straightened before it is worked with. */
  timeBreaks: z.boolean().default(false),
  /** Where the frames of the grid are in the file's own time. */
  grid: GridInFile,
  /** Whether the stored pixels are not square, and are made so when decoding. */
  nonSquarePixels: z.boolean(),
  /** Whether a frame holds two fields, which are of different moments, to be made into one when decoding. */
  interlaced: z.boolean(),
  /** Whether each field becomes a frame of its own: the grid then has twice as many. */
  fields: z.boolean().default(false),
  /** The sound that is used. */
  audio: FilmSound.nullable(),
  /** All sounds of the file. */
  sounds: z.array(SoundTrack).max(1000).default([]),
  /** The timecode that the file begins with, as it is written in it. */
  startTimecode: Word.nullable().default(null),
  colour: z.object({ transfer: Word, matrix: Word, range: Word }),
  /** Bits of a sample, as it is stored: 8, 10 or more. */
  bitDepth: z.int().positive().max(64).default(8),
  videoCodec: Word,
  /** What reads the file, as ffmpeg names it: "matroska,webm". */
  container: Word.default("unknown"),
  bytes: z.int().min(0),
});
export type FilmInfo = z.infer<typeof FilmInfo>;

/** How a film's frames are counted in timecode. */
export const clockOfFilm = ({ rate, startTimecode }: Pick<FilmInfo, "rate" | "startTimecode">): Clock =>
  clockOf(rate, startTimecode);
