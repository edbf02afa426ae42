/** What a version can be rendered to, in one table. */
import { outputTexts } from "../../texts/output";
import { type BitDepth, pixelFormat } from "../image/bit-depth";

const t = outputTexts.formats;

/** How a format's quality is told its encoder: a number, and what it is in words. */
export interface QualityScale {
  /** What the number is called, such as CRF. */
  name: string;
  least: number;
  most: number;
  /** The number for each quality in words. */
  small: number;
  good: number;
  best: number;
}

export interface OutputFormat {
  /** What people call it, and what it is for. */
  name: string;
  use: string;
  /** With its dot. */
  extension: string;
  mediaType: string;
  /** What ffmpeg calls the encoder; a format whose encoder a machine's ffmpeg lacks is not offered. */
  encoder: string;
  /** What ffmpeg calls the container, and how it is to write it. */
  muxer: readonly string[];
  /** How ffmpeg is to encode the picture at a quality, and with so many bits a sample. */
  picture: (quality: number, depth: BitDepth) => readonly string[];
  /** How many bits a sample may have, those first that it has unless somebody says otherwise. */
  depths: readonly [BitDepth, ...BitDepth[]];
  quality: QualityScale | null;
  /** With so many bits a sample there is one quality and no other. */
  oneQualityAt?: BitDepth;
  /** How ffmpeg is told the first and the second of two passes, with a file for what the first has found; null where it has none. */
  passes: ((pass: 1 | 2, log: string) => readonly string[]) | null;
  /** How ffmpeg is to encode the sound, where it cannot go along as it is; null for a format without sound. */
  sound: readonly string[] | null;
  /** Codecs of sounds that go along as they are. */
  soundsAsTheyAre: ReadonlySet<string>;
  /** Samples of sound a second. */
  sampleRate: number;
  /** What a track of captions is encoded as; null where it can have none. */
  captions: string | null;
  /** How long a side of the picture may be, in pixels; both are even, because of 4:2:0 chroma. */
  side: { least: number; most: number };
  /** Seconds that it may last; null for as long as it is. */
  mostSeconds: number | null;
  /** Whether it is made of parts that are joined as they are: pictures that depend on no others outside their part. */
  inParts: boolean;
}

const SIDE = { least: 16, most: 8192 };
const NO_SOUNDS: ReadonlySet<string> = new Set();
const AAC = ["-c:a", "aac", "-b:a", "192k"];
const OPUS = ["-c:a", "libopus", "-b:a", "160k"];
const PCM = ["-c:a", "pcm_s24le"];
const MP4 = ["-movflags", "+faststart+write_colr", "-f", "mp4"];
const MOV = ["-movflags", "+write_colr", "-f", "mov"];
/** Every part begins with a picture that is decoded by itself, and refers to none before it. */
const X264 = ["-c:v", "libx264", "-preset", "fast", "-flags", "+cgop", "-pix_fmt", "yuv420p"];
const DNXHR = ["dnxhr_lb", "dnxhr_sq", "dnxhr_hq"];
/** What takes 10 bits as well and is played nearly everywhere then, which H.264 is not. */
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
    // One profile has 10 bits; it is as large as the best of the others.
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

/** What is rendered to unless somebody says otherwise. */
export const USUAL_FORMAT: OutputFormat = OUTPUT_FORMATS.mp4;
