/** What is known of a film before a single frame is decoded. */
import { z } from "zod";
import { FrameRange, Rate } from "../time/rate";
import { type Clock, clockOf } from "../time/timecode";

/** Most pixels of a picture: a little more than 8K (8192 × 4320). */
export const MOST_PIXELS = 36_000_000;
/** Most frames of a film: a day at 30 per second. */
export const MOST_FRAMES = 24 * 3600 * 30;

/** A name in a file. */
const Word = z.string().max(500);

/** An audio track of a film. */
export const FilmSound = z.object({
  codec: Word,
  /** Which of the file's audio tracks it is, from 0. */
  index: z.int().min(0),
  /** Start in seconds, in the file's own time. */
  start: z.number(),
});
export type FilmSound = z.infer<typeof FilmSound>;

/** A file's description of one of its audio tracks. */
export const SoundTrack = FilmSound.extend({
  channels: z.int().min(0),
  /** ISO 639 code, if the file has one. */
  language: Word.nullable(),
  title: Word.nullable(),
});
export type SoundTrack = z.infer<typeof SoundTrack>;

/** Position of a film's grid in its file (`FilmGrid` in time/film-grid.ts), and how to seek in it. */
export const GridInFile = z.object({
  origin: z.number(),
  fileStart: z.number(),
  lastPicture: z.number(),
  even: z.boolean(),
  held: z.int().min(0),
  longHolds: z.array(FrameRange).max(MOST_FRAMES),
  /** Seconds before a picture at which reading has to begin so that it is not missed. */
  seekMargin: z.number().min(0),
  /** Seconds per unit of the file's time; 0 where that is unknown. */
  timeBase: z.number().min(0).default(0),
  /** Seconds by which the decoder stamps pictures too late, where the file only counts them in decoding order. */
  late: z.number().min(0).default(0),
});
export type GridInFile = z.infer<typeof GridInFile>;

/** Defaults are for films that were added before a field existed. */
export const FilmInfo = z.object({
  /** Displayed size: after rotation, with square pixels. */
  picture: z
    .object({ width: z.int().positive(), height: z.int().positive() })
    .refine(({ width, height }) => width * height <= MOST_PIXELS, { error: "The picture is too large" }),
  rate: Rate,
  /** Frames on the film's own grid. */
  frames: z.int().positive().max(MOST_FRAMES),
  /** Frames that the file announces after these but does not contain: it was cut off. */
  cutOff: z.int().min(0).default(0),
  /** Whether the file's times start over somewhere: it has to be straightened first. */
  timeBreaks: z.boolean().default(false),
  /** Position of the grid's frames in the file's own time. */
  grid: GridInFile,
  /** Whether the stored pixels are not square, and are made square when decoding. */
  nonSquarePixels: z.boolean(),
  /** Whether a frame holds two fields of different moments, to be deinterlaced when decoding. */
  interlaced: z.boolean(),
  /** Whether each field becomes a frame of its own, which doubles the grid's rate. */
  fields: z.boolean().default(false),
  /** The audio track in use. */
  audio: FilmSound.nullable(),
  /** All audio tracks of the file. */
  sounds: z.array(SoundTrack).max(1000).default([]),
  /** The file's start timecode, as it is written there. */
  startTimecode: Word.nullable().default(null),
  colour: z.object({ transfer: Word, matrix: Word, range: Word }),
  /** Bits per stored sample: 8, 10 or more. */
  bitDepth: z.int().positive().max(64).default(8),
  videoCodec: Word,
  /** ffmpeg's name of the container: "matroska,webm". */
  container: Word.default("unknown"),
  bytes: z.int().min(0),
});
export type FilmInfo = z.infer<typeof FilmInfo>;

/** How a film's frames are counted in timecode. */
export const clockOfFilm = ({ rate, startTimecode }: Pick<FilmInfo, "rate" | "startTimecode">): Clock =>
  clockOf(rate, startTimecode);
