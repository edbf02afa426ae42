/** Films of every kind that people bring, with the picture that belongs at each frame of the grid. */
import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { seeded } from "../../demo/film/random";
import { AAC, FRAMES, type Kind, KindMaker, LOSSLESS, upTo, value, WITH_B } from "./kind-maker";
import { TONE_AT } from "./numbered";
import { packed } from "./packed-avi";

/** Makes all kinds in a folder. */
export class Kinds extends KindMaker {
  /** The picture at each frame where the container itself moves them a little: AVI counts in frames. */
  private asStored(file: string, kept: number[]): number[] {
    const entries = ["-select_streams", "v:0", "-show_entries", "packet=dts_time", "-of", "csv=p=0"];
    const said = execFileSync("ffprobe", ["-v", "error", ...entries, this.path(file)], { encoding: "utf8" });
    const places = said
      .trim()
      .split("\n")
      .map((time) => Math.round(30 * Number(time)));
    return upTo(places.at(-1)! + 1).map((n) => kept[places.findLastIndex((place) => place <= n)]!);
  }

  make(): Kind[] {
    this.rates();
    this.uneven();
    this.sparse();
    this.starts();
    this.containers();
    this.counted();
    this.pictures();
    this.sounds();
    this.damaged();
    return this.all;
  }

  private rates(): void {
    for (const rate of ["24000/1001", "24", "25", "30000/1001", "30", "50", "60000/1001", "60", "120"]) {
      const frames = value(rate) > 50 ? 2 * FRAMES : FRAMES;
      const file = `rate-${rate.replace("/", "-")}.mp4`;
      this.ffmpeg("-i", this.source(rate, frames), ...WITH_B, ...AAC, this.path(file));
      this.add(`${rate} fps`, file, rate, upTo(frames));
    }
  }

  private uneven(): void {
    const source = this.source("30");
    const random = seeded(5);
    const kept = upTo(FRAMES).filter((n) => n === 0 || n === FRAMES - 1 || random() < 0.55);
    const held = upTo(FRAMES).map((n) => kept.findLast((k) => k <= n)!);
    const select = `select='${kept.map((n) => `eq(n,${n})`).join("+")}'`;
    this.ffmpeg("-i", source, "-vf", select, "-fps_mode", "vfr", ...WITH_B, ...AAC, this.path("held.mp4"));
    this.add("held pictures", "held.mp4", "30", held);
    this.ffmpeg(
      "-i",
      source,
      "-vf",
      select,
      "-fps_mode",
      "vfr",
      "-c:v",
      "mpeg4",
      "-q:v",
      "2",
      "-c:a",
      "pcm_s16le",
      this.path("dropped.avi"),
    );
    this.add("AVI with dropped frames", "dropped.avi", "30", this.asStored("dropped.avi", kept));
    const gaps = upTo(FRAMES).filter((n) => ![20, 21, 22, 50, 70, 71].includes(n));
    const wanders = `select='${gaps.map((n) => `eq(n,${n})`).join("+")}',setpts=PTS+0.22*sin(2.3*N)/30/TB`;
    this.ffmpeg(
      "-i",
      source,
      "-vf",
      wanders,
      "-fps_mode",
      "vfr",
      ...WITH_B,
      "-video_track_timescale",
      "90000",
      ...AAC,
      this.path("phone.mp4"),
    );
    this.add(
      "a phone's uneven clock and gaps",
      "phone.mp4",
      "30",
      upTo(FRAMES).map((n) => gaps.findLast((k) => k <= n)!),
    );
    const late = upTo(FRAMES).filter((n) => n < 20 || n > 75);
    const pause = `select='${late.map((n) => `eq(n,${n})`).join("+")}'`;
    this.ffmpeg("-i", source, "-vf", pause, "-fps_mode", "vfr", ...WITH_B, ...AAC, this.path("pause.mkv"));
    this.add(
      "one picture for two seconds",
      "pause.mkv",
      "30",
      upTo(FRAMES).map((n) => late.findLast((k) => k <= n)!),
      { lead: 1 },
    );
  }

  /** Films most of whose grid has no picture of its own. */
  private sparse(): void {
    const random = seeded(11);
    /** @param next the frame that has a picture after the one that has one, for each */
    const sparse = (name: string, file: string, rate: string, frames: number, next: (frame: number) => number) => {
      const kept: number[] = [];
      for (let n = 0; n < frames; n = next(n)) kept.push(n);
      const select = `select='${kept.map((n) => `eq(n,${n})`).join("+")}'`;
      const source = this.source(rate, frames);
      this.ffmpeg("-i", source, "-vf", select, "-fps_mode", "vfr", ...WITH_B, ...AAC, this.path(file));
      this.add(
        name,
        file,
        rate,
        upTo(frames).map((n) => kept.findLast((k) => k <= n)!),
      );
    };
    const between = (least: number, most: number) => Math.floor(least + random() * (most - least + 1));
    sparse("every sixth or seventh picture", "sixth.mp4", "15", 300, (n) => n + between(6, 7));
    sparse("pictures held for 2 to 40 frames", "held-40.mp4", "30", 600, (n) => n + between(2, 40));
    sparse(
      "5 to 60 pictures per second in one film",
      "5-to-60.mp4",
      "60",
      180,
      (n) => n + [12, 1, 4][Math.floor(n / 60)]!,
    );
  }

  /** AVI, which counts pictures in the order in which they are decoded. */
  private counted(): void {
    const source = this.source("30");
    const asp = ["-c:v", "mpeg4", "-q:v", "2", "-g", "24", "-vtag", "DX50", "-c:a", "pcm_s16le"];
    this.ffmpeg("-i", source, ...asp, "-bf", "1", this.path("b-frames.avi"));
    this.add("AVI with B-frames", "b-frames.avi", "30", upTo(FRAMES));
    writeFileSync(this.path("packed.avi"), packed(readFileSync(this.path("b-frames.avi"))));
    this.add("AVI with packed B-frames", "packed.avi", "30", upTo(FRAMES));
    this.ffmpeg("-i", source, ...WITH_B, "-c:a", "pcm_s16le", this.path("h264.avi"));
    this.add("H.264 in AVI", "h264.avi", "30", upTo(FRAMES));
  }

  /** Puts a film's picture and sound together again, one of them ("0:…") half a second later. */
  private shift(film: string, video: string, audio: string, file: string): void {
    const inputs = ["-itsoffset", "0.5", "-i", film, "-i", film];
    this.ffmpeg(...inputs, "-map", video, "-map", audio, "-c", "copy", this.path(file));
  }

  private starts(): void {
    const film = this.path("rate-30.mp4");
    this.ffmpeg("-ss", "0.7", "-i", film, "-c", "copy", this.path("edit-list.mp4"));
    this.add(
      "trimmed with an edit list",
      "edit-list.mp4",
      "30",
      upTo(FRAMES - 21).map((n) => n + 21),
      { tone: TONE_AT - 0.7 },
    );
    this.shift(film, "0:v", "1:a", "late-picture.mkv");
    this.add(
      "picture later than the sound",
      "late-picture.mkv",
      "30",
      upTo(FRAMES + 15).map((n) => Math.max(0, n - 15)),
      { lead: 1 },
    );
    this.shift(film, "1:v", "0:a", "late-sound.mp4");
    this.add(
      "sound later than the picture",
      "late-sound.mp4",
      "30",
      upTo(FRAMES + 15).map((n) => Math.min(n, FRAMES - 1)),
      { tone: TONE_AT + 0.5 },
    );
    this.ffmpeg("-i", film, "-c", "copy", "-output_ts_offset", "7.3", this.path("both-later.mkv"));
    this.add("both later than zero", "both-later.mkv", "30", upTo(FRAMES), { lead: 1 });
  }

  private containers(): void {
    const film = this.path("rate-30.mp4");
    this.ffmpeg("-i", film, "-c", "copy", this.path("stream.ts"));
    this.add("MPEG-TS", "stream.ts", "30", upTo(FRAMES), { lead: 1 });
    writeFileSync(this.path("twice.ts"), Buffer.concat([1, 2].map(() => readFileSync(this.path("stream.ts")))));
    this.add("MPEG-TS whose times start over", "twice.ts", "30", [...upTo(FRAMES), ...upTo(FRAMES)], { lead: 1 });
    this.ffmpeg("-i", film, "-c:v", "mpeg2video", "-q:v", "2", "-bf", "2", "-c:a", "mp2", this.path("stream.mpg"));
    this.add("MPEG-PS, MPEG-2", "stream.mpg", "30", upTo(FRAMES));
    this.ffmpeg("-i", this.path("rate-30000-1001.mp4"), "-c", "copy", this.path("milliseconds.mkv"));
    this.add("Matroska in milliseconds, 29.97", "milliseconds.mkv", "30000/1001", upTo(FRAMES), { lead: 1 });
    this.ffmpeg("-i", this.path("rate-24000-1001.mp4"), "-c", "copy", this.path("milliseconds-24.mkv"));
    this.add("Matroska in milliseconds, 23.976", "milliseconds-24.mkv", "24000/1001", upTo(FRAMES), { lead: 1 });
    const webm = execFileSync(
      "ffmpeg",
      [
        "-v",
        "error",
        "-i",
        film,
        "-c:v",
        "libvpx",
        "-deadline",
        "realtime",
        "-b:v",
        "4M",
        "-c:a",
        "libopus",
        "-f",
        "webm",
        "-live",
        "1",
        "pipe:1",
      ],
      { maxBuffer: 2 ** 28 },
    );
    writeFileSync(this.path("live.webm"), webm);
    this.add("WebM without a duration", "live.webm", "30", upTo(FRAMES));
    this.ffmpeg(
      "-i",
      film,
      "-c",
      "copy",
      "-movflags",
      "frag_keyframe+empty_moov+default_base_moof",
      this.path("fragments.mp4"),
    );
    this.add("MP4 in fragments", "fragments.mp4", "30", upTo(FRAMES), { lead: 2 });
    this.ffmpeg("-i", film, "-c:v", "prores_ks", "-profile:v", "1", "-c:a", "pcm_s16le", this.path("camera.mov"));
    this.add("MOV, ProRes, 10 bits", "camera.mov", "30", upTo(FRAMES));
    this.ffmpeg(
      "-i",
      film,
      "-c:v",
      "mpeg2video",
      "-q:v",
      "2",
      "-c:a",
      "pcm_s16le",
      "-ar",
      "48000",
      this.path("camera.mxf"),
    );
    this.add("MXF", "camera.mxf", "30", upTo(FRAMES));
  }

  private pictures(): void {
    const source = this.source("30");
    const encode = (name: string, file: string, ...args: string[]) => {
      this.ffmpeg("-i", source, ...args, ...AAC, this.path(file));
      this.add(name, file, "30", upTo(FRAMES), { lead: file.endsWith(".mkv") ? 1 : 0 });
    };
    for (const [degrees, transpose] of [
      ["90", "transpose=clock"],
      ["270", "transpose=cclock"],
      ["180", "hflip,vflip"],
    ] as const) {
      this.ffmpeg("-i", source, "-vf", transpose, ...WITH_B, ...AAC, this.path("turned.mp4"));
      const file = `rotated-${degrees}.mp4`;
      this.ffmpeg("-i", this.path("turned.mp4"), "-c", "copy", "-metadata:s:v:0", `rotate=${degrees}`, this.path(file));
      this.add(`rotated by ${degrees}`, file, "30", upTo(FRAMES));
    }
    for (const [how, filter, matrix] of [
      ["sideways", "hflip", [-1, 0, 0, 1]],
      ["upside down", "vflip", [1, 0, 0, -1]],
      ["along the diagonal", "transpose=cclock_flip", [0, 1, 1, 0]],
    ] as const) {
      this.ffmpeg("-i", source, "-vf", filter, ...WITH_B, ...AAC, this.path("flipped.mp4"));
      const film = readFileSync(this.path("flipped.mp4"));
      // The display matrix of the first track's header (ISO/IEC 14496-12, 8.3.2): a, b, u, c, d, …
      const at = film.indexOf("tkhd") + 44;
      matrix.forEach((value, i) => film.writeInt32BE(value * 65_536, at + 4 * (i < 2 ? i : i + 1)));
      const file = `mirrored-${filter.slice(0, 4)}.mp4`;
      writeFileSync(this.path(file), film);
      this.add(`mirrored ${how}`, file, "30", upTo(FRAMES));
    }
    encode("pixels that are not square", "wide-pixels.mp4", "-vf", "scale=240:180,setsar=4/3", ...WITH_B);
    encode("odd sizes", "odd.mkv", "-vf", "scale=321:181", "-c:v", "ffv1", "-pix_fmt", "yuv420p");
    encode(
      "interlaced",
      "interlaced.mp4",
      "-vf",
      "setfield=tff",
      ...WITH_B,
      "-flags",
      "+ilme+ildct",
      "-x264opts",
      "tff=1",
    );
    const halves = upTo(2 * FRAMES).map((n) => n >> 1);
    this.add("interlaced, at double rate", "interlaced.mp4", "60", halves, { fields: true });
    encode(
      "10 bits, H.265",
      "ten-bits.mp4",
      "-c:v",
      "libx265",
      "-preset",
      "ultrafast",
      "-x265-params",
      "log-level=none",
      "-pix_fmt",
      "yuv420p10le",
    );
    encode(
      "PQ, BT.2020",
      "hdr.mp4",
      "-c:v",
      "libx265",
      "-preset",
      "ultrafast",
      "-pix_fmt",
      "yuv420p10le",
      "-x265-params",
      "log-level=none:colorprim=bt2020:transfer=smpte2084:colormatrix=bt2020nc",
    );
    encode("full range", "full.mp4", "-vf", "scale=out_range=pc", ...LOSSLESS, "-color_range", "pc");
    encode("Rec.601", "rec601.mp4", "-vf", "scale=out_color_matrix=bt601", ...LOSSLESS, "-colorspace", "smpte170m");
    encode("with alpha", "alpha.mov", "-vf", "format=argb", "-c:v", "qtrle");
  }

  private sounds(): void {
    this.ffmpeg("-i", this.source("30", FRAMES, null), ...WITH_B, this.path("silent.mp4"));
    this.add("no sound", "silent.mp4", "30", upTo(FRAMES), { tone: null });
    this.ffmpeg("-i", this.source("30", FRAMES, 4.2), ...WITH_B, "-c:a", "pcm_s16le", this.path("long-sound.mov"));
    this.add(
      "sound longer than the picture",
      "long-sound.mov",
      "30",
      upTo(126).map((n) => Math.min(n, FRAMES - 1)),
    );
    this.ffmpeg("-i", this.source("30", FRAMES, 2), ...WITH_B, ...AAC, this.path("short-sound.mp4"));
    this.add("sound shorter than the picture", "short-sound.mp4", "30", upTo(FRAMES));
    const film = this.path("rate-30.mp4");
    this.ffmpeg(
      "-i",
      film,
      "-f",
      "lavfi",
      "-i",
      "anullsrc=r=48000:cl=stereo:d=3.2",
      "-map",
      "0:v",
      "-map",
      "1:a",
      "-map",
      "0:a",
      "-c:v",
      "copy",
      ...AAC,
      "-disposition:a:0",
      "0",
      "-disposition:a:1",
      "default",
      this.path("two-sounds.mp4"),
    );
    this.add("two sounds, the second the usual one", "two-sounds.mp4", "30", upTo(FRAMES));
    this.ffmpeg(
      "-i",
      film,
      "-c:v",
      "copy",
      "-af",
      "pan=5.1|FL=c0|FR=c0|FC=c0|LFE=0*c0|BL=c0|BR=c0",
      "-c:a",
      "ac3",
      this.path("surround.mkv"),
    );
    this.add("5.1", "surround.mkv", "30", upTo(FRAMES));
  }

  private damaged(): void {
    // Without B-frames, so that the last packet is the last picture.
    this.ffmpeg(
      "-i",
      this.path("source-30-96-3.2.mkv"),
      "-c:v",
      "libx264",
      "-bf",
      "0",
      "-g",
      "24",
      "-crf",
      "14",
      "-pix_fmt",
      "yuv420p",
      ...AAC,
      this.path("no-b.mp4"),
    );
    const lines = execFileSync(
      "ffprobe",
      [
        "-v",
        "error",
        "-select_streams",
        "v:0",
        "-show_entries",
        "packet=size,pos",
        "-of",
        "csv=p=0",
        this.path("no-b.mp4"),
      ],
      { encoding: "utf8" },
    );
    const [size, position] = lines.trim().split("\n").at(-1)!.split(",").map(Number) as [number, number];
    writeFileSync(this.path("last-broken.mp4"), readFileSync(this.path("no-b.mp4")).fill(0, position, position + size));
    this.add(
      "a last frame that cannot be decoded",
      "last-broken.mp4",
      "30",
      upTo(FRAMES).map((n) => Math.min(n, FRAMES - 2)),
      { undecoded: 1 },
    );
    const packets = lines
      .trim()
      .split("\n")
      .map((line) => line.split(",").map(Number) as [number, number]);
    const whole = readFileSync(this.path("no-b.mp4"));
    const key = packets.findIndex(([bytes], i) => i > 40 && bytes > 2 * packets[i - 1]![0]);
    for (const [bytes, at] of packets.slice(key - 4, key)) whole.fill(0, at, at + bytes);
    writeFileSync(this.path("middle-broken.mp4"), whole);
    this.add(
      "frames in the middle that cannot be decoded",
      "middle-broken.mp4",
      "30",
      upTo(FRAMES).map((n) => (n >= key - 4 && n < key ? key - 5 : n)),
      { undecoded: 4 },
    );
    this.ffmpeg("-i", this.path("no-b.mp4"), "-c", "copy", this.path("whole.mkv"));
    writeFileSync(this.path("cut-off.mkv"), readFileSync(this.path("whole.mkv")).subarray(0, 40_000));
    this.add("cut off", "cut-off.mkv", "30", [], { lead: 1, undecoded: null });
  }
}
