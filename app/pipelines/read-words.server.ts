/** Reads the texts of a shot in full-size pictures of the film: those of the analysis are too small. */
import { clipBox, scaleBox } from "~/core/geometry/box";
import { aroundText, withReading } from "~/core/subjects/text/read-text";
import { boxAt, extentOf, type Track } from "~/core/subjects/tracking/track";
import type { Detector } from "~/media/detect/detector.server";
import type { FilmFile } from "~/media/film-file";
import { decodeSmall, scaledFrames } from "~/media/small-frames.server";

/** Longer side of the pictures that are read, at most, in pixels. */
const LONG_SIDE = 1920;

/** The frames at which to look for some texts, few for all: the middle of what is left, until each has had its turn. */
function framesFor(texts: readonly Track[]): Map<number, Track[]> {
  const frames = new Map<number, Track[]>();
  let left = [...texts];
  while (left.length > 0) {
    const { start, end } = extentOf(left[0]!);
    const frame = Math.floor((start + end) / 2);
    frames.set(
      frame,
      left.filter((track) => boxAt(track, frame)),
    );
    left = left.filter((track) => !boxAt(track, frame));
  }
  return frames;
}

/** The tracks of a shot, the texts among them with their words, as far as they can be read. */
export async function readWords(
  film: FilmFile,
  tracks: readonly Track[],
  detector: Detector,
  signal?: AbortSignal,
): Promise<Track[]> {
  const texts = tracks.filter(({ kind }) => kind === "text");
  const read = new Map<Track, Track | null>();
  const { picture } = film.info;
  const { scale } = scaledFrames(picture, LONG_SIDE);
  for (const [frame, there] of framesFor(texts)) {
    for await (const { image } of decodeSmall(film, { start: frame, end: frame + 1 }, signal, LONG_SIDE)) {
      const parts = there.map((track) => clipBox(scaleBox(aroundText(track.boxes[0]!), 1 / scale), image));
      const lines = await detector.read(image, parts);
      there.forEach((track, i) => {
        const inFilm = lines[i]!.map((line) => ({ ...line, box: scaleBox(line.box, scale) }));
        read.set(track, withReading(track, inFilm, picture));
      });
    }
  }
  return tracks.flatMap((track) => (read.has(track) ? (read.get(track) ?? []) : track));
}
