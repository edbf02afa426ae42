/** What a version can be rendered to. */

export interface OutputFormat {
  /** What people call it. */
  name: string;
  /** With its dot. */
  extension: string;
  /** What ffmpeg calls the container, and how it is to write it. */
  muxer: readonly string[];
  /** How ffmpeg is to encode the picture. */
  picture: readonly string[];
  /** How ffmpeg is to encode the sound, where it cannot go along as it is. */
  sound: readonly string[];
  /** Codecs of sounds that go along as they are. */
  soundsAsTheyAre: ReadonlySet<string>;
  /** Samples of sound a second. */
  sampleRate: number;
  /** How long a side of the picture may be, in pixels; both are even, because of 4:2:0 chroma. */
  side: { least: number; most: number };
}

export const OUTPUT_FORMATS = {
  mp4: {
    name: "MP4",
    extension: ".mp4",
    muxer: ["-movflags", "+faststart", "-f", "mp4"],
    picture: ["-c:v", "libx264", "-preset", "fast", "-crf", "18", "-pix_fmt", "yuv420p"],
    sound: ["-c:a", "aac", "-b:a", "192k"],
    soundsAsTheyAre: new Set(["aac", "mp3", "ac3", "eac3", "alac"]),
    sampleRate: 48_000,
    side: { least: 16, most: 8192 },
  },
} as const satisfies Record<string, OutputFormat>;

/** What is rendered to unless somebody says otherwise. */
export const USUAL_FORMAT: OutputFormat = OUTPUT_FORMATS.mp4;
