/** The formats of exported files, in one table. */
import { outputTexts } from "../../texts/output";
import { type BitDepth, pixelFormat } from "../image/bit-depth";

const t = outputTexts.formats;

/** Quality scale of an encoder: its numbers, and their names. */
export interface QualityScale {
  /** Name of the number, such as CRF. */
  name: string;
  least: number;
  most: number;
  /** Number for each named quality. */
  small: number;
  good: number;
  best: number;
}

export interface OutputFormat {
  /** Name of the format, and what it is for. */
  name: string;
  use: string;
  /** Including the dot. */
  extension: string;
  mediaType: string;
  /** ffmpeg's name of the encoder; a format whose encoder this ffmpeg lacks is not offered. */
  encoder: string;
  /** ffmpeg's container options. */
  muxer: readonly string[];
  /** ffmpeg's options for the picture, by quality and bits per sample. */
  picture: (quality: number, depth: BitDepth) => readonly string[];
  /** Possible bits per sample, the usual one first. */
  depths: readonly [BitDepth, ...BitDepth[]];
  quality: QualityScale | null;
  /** Bits per sample at which there is only one quality. */
  oneQualityAt?: BitDepth;
  /** ffmpeg's options for the first and second of two passes, with a log file; null where there are none. */
  passes: ((pass: 1 | 2, log: string) => readonly string[]) | null;
  /** ffmpeg's options for the sound where it is encoded again; null for a format without sound. */
  sound: readonly string[] | null;
  /** Audio codecs that are copied without encoding. */
  soundsAsTheyAre: ReadonlySet<string>;
  /** Audio samples per second. */
  sampleRate: number;
  /** Codec of a caption track; null where it can have none. */
  captions: string | null;
  /** Shortest and longest side in pixels; both even, because of 4:2:0 chroma. */
  side: { least: number; most: number };
  /** Longest duration in seconds; null for none. */
  mostSeconds: number | null;
  /** Whether it is rendered in parts and joined without encoding: no picture depends on another part. */
  inParts: boolean;
}

const SIDE = { least: 16, most: 8192 };
const NO_SOUNDS: ReadonlySet<string> = new Set();
const AAC = ["-c:a", "aac", "-b:a", "192k"];
const OPUS = ["-c:a", "libopus", "-b:a", "160k"];
const PCM = ["-c:a", "pcm_s24le"];
const MP4 = ["-movflags", "+faststart+write_colr", "-f", "mp4"];
const MOV = ["-movflags", "+write_colr", "-f", "mov"];
/** Every part begins with a key frame, and refers to none before it. */
const X264 = ["-c:v", "libx264", "-preset", "fast", "-flags", "+cgop", "-pix_fmt", "yuv420p"];
const DNXHR = ["dnxhr_lb", "dnxhr_sq", "dnxhr_hq"];
/** Takes 10 bits as well, and plays nearly everywhere then, unlike H.264. */
const EITHER_DEPTH = [8, 10] as const;

const common = {
  sampleRate: 48_000,
  side: SIDE,
  mostSeconds: null,
  inParts: true,
  captions: null,
  passes: null,
  soundsAsTheyAre: NO_SOUNDS,
  depths: [8] as const,
};
const PASSES = (pass: 1 | 2, log: string) => ["-pass", String(pass), "-passlogfile", log];

export const OUTPUT_FORMATS = {
  mp4: {
    ...common,
    name: "MP4 (H.264)",
    use: t.mp4,
    extension: ".mp4",
    mediaType: "video/mp4",
    encoder: "libx264",
    muxer: MP4,
    picture: (quality) => [...X264, "-crf", String(quality)],
    quality: { name: "CRF", least: 0, most: 40, small: 24, good: 18, best: 14 },
    passes: PASSES,
    sound: AAC,
    soundsAsTheyAre: new Set(["aac", "mp3", "ac3", "eac3", "alac"]),
    captions: "mov_text",
  },
  hevc: {
    ...common,
    name: "MP4 (HEVC)",
    use: t.hevc,
    extension: ".mp4",
    mediaType: "video/mp4",
    encoder: "libx265",
    muxer: ["-tag:v", "hvc1", ...MP4],
    depths: EITHER_DEPTH,
    picture: (quality, depth) => [
      ...["-c:v", "libx265", "-preset", "fast", "-pix_fmt", pixelFormat(depth), "-crf", String(quality)],
      ...["-x265-params", "log-level=error:open-gop=0:repeat-headers=1"],
    ],
    quality: { name: "CRF", least: 0, most: 40, small: 28, good: 22, best: 18 },
    sound: AAC,
    soundsAsTheyAre: new Set(["aac", "ac3", "eac3", "alac"]),
    captions: "mov_text",
  },
  vp9: {
    ...common,
    name: "WebM (VP9)",
    use: t.vp9,
    extension: ".webm",
    mediaType: "video/webm",
    encoder: "libvpx-vp9",
    muxer: ["-f", "webm"],
    depths: EITHER_DEPTH,
    picture: (quality, depth) => [
      ...["-c:v", "libvpx-vp9", "-deadline", "good", "-cpu-used", "4", "-row-mt", "1"],
      ...["-pix_fmt", pixelFormat(depth), "-crf", String(quality), "-b:v", "0"],
    ],
    quality: { name: "CRF", least: 4, most: 60, small: 38, good: 30, best: 22 },
    passes: PASSES,
    sound: OPUS,
    soundsAsTheyAre: new Set(["opus", "vorbis"]),
    captions: "webvtt",
  },
  av1: {
    ...common,
    name: "WebM (AV1)",
    use: t.av1,
    extension: ".webm",
    mediaType: "video/webm",
    encoder: "libsvtav1",
    muxer: ["-f", "webm"],
    depths: EITHER_DEPTH,
    picture: (quality, depth) => [
      ...["-c:v", "libsvtav1", "-preset", "8", "-pix_fmt", pixelFormat(depth), "-crf", String(quality)],
    ],
    quality: { name: "CRF", least: 10, most: 60, small: 42, good: 32, best: 24 },
    side: { least: 64, most: 8192 },
    sound: OPUS,
    soundsAsTheyAre: new Set(["opus", "vorbis"]),
    captions: "webvtt",
  },
  prores: {
    ...common,
    name: "MOV (ProRes)",
    use: t.prores,
    extension: ".mov",
    mediaType: "video/quicktime",
    encoder: "prores_ks",
    muxer: MOV,
    depths: [10],
    picture: (quality) => [
      ...["-c:v", "prores_ks", "-profile:v", String(quality), "-vendor", "apl0", "-pix_fmt", "yuv422p10le"],
    ],
    quality: { name: t.profile, least: 0, most: 3, small: 1, good: 2, best: 3 },
    sound: PCM,
  },
  dnxhr: {
    ...common,
    name: "MOV (DNxHR)",
    use: t.dnxhr,
    extension: ".mov",
    mediaType: "video/quicktime",
    encoder: "dnxhd",
    muxer: MOV,
    depths: EITHER_DEPTH,
    // Only one profile has 10 bits, as large as the best of the others.
    oneQualityAt: 10,
    picture: (quality, depth) => [
      ...["-c:v", "dnxhd", "-profile:v", depth === 10 ? "dnxhr_hqx" : DNXHR[quality]!],
      ...["-pix_fmt", depth === 10 ? "yuv422p10le" : "yuv422p"],
    ],
    quality: { name: t.profile, least: 0, most: 2, small: 0, good: 1, best: 2 },
    side: { least: 256, most: 8192 },
    sound: PCM,
  },
  png: {
    ...common,
    name: t.pngName,
    use: t.png,
    extension: ".zip",
    mediaType: "application/zip",
    encoder: "png",
    muxer: [],
    depths: EITHER_DEPTH,
    picture: () => ["-c:v", "png", "-pred", "sub"],
    quality: null,
    sound: null,
    inParts: false,
  },
  gif: {
    ...common,
    name: "GIF",
    use: t.gif,
    extension: ".gif",
    mediaType: "image/gif",
    encoder: "gif",
    muxer: ["-f", "gif"],
    picture: () => [],
    quality: { name: t.colours, least: 8, most: 256, small: 64, good: 160, best: 256 },
    sound: null,
    mostSeconds: 30,
    inParts: false,
  },
  webp: {
    ...common,
    name: t.webpName,
    use: t.webp,
    extension: ".webp",
    mediaType: "image/webp",
    encoder: "libwebp_anim",
    muxer: ["-loop", "0", "-f", "webp"],
    picture: (quality) => ["-c:v", "libwebp_anim", "-pix_fmt", "yuv420p", "-quality", String(quality)],
    quality: { name: t.quality, least: 1, most: 100, small: 55, good: 75, best: 92 },
    sound: null,
    mostSeconds: 30,
    inParts: false,
  },
} as const satisfies Record<string, OutputFormat>;

export type FormatId = keyof typeof OUTPUT_FORMATS;
export const FORMAT_IDS = Object.keys(OUTPUT_FORMATS) as FormatId[];

export const outputFormat = (id: FormatId): OutputFormat => OUTPUT_FORMATS[id];

/** The format used unless another is selected. */
export const USUAL_FORMAT: OutputFormat = OUTPUT_FORMATS.mp4;
