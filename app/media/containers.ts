/**
 * Supported containers: ffmpeg's name of the demuxer, and the file extension. Others are not opened: playlists and
 * manifests make ffmpeg read other files.
 */
const CONTAINERS = [
  { demuxer: "mov,mp4,m4a,3gp,3g2,mj2", extension: ".mp4" },
  { demuxer: "matroska,webm", extension: ".mkv" },
  { demuxer: "avi", extension: ".avi" },
  { demuxer: "mpegts", extension: ".ts" },
  { demuxer: "mpeg", extension: ".mpg" },
  { demuxer: "mpegvideo", extension: ".m2v" },
  { demuxer: "asf", extension: ".wmv" },
  { demuxer: "flv", extension: ".flv" },
  { demuxer: "mxf", extension: ".mxf" },
  { demuxer: "gxf", extension: ".gxf" },
  { demuxer: "ogg", extension: ".ogv" },
  { demuxer: "dv", extension: ".dv" },
  { demuxer: "nut", extension: ".nut" },
  { demuxer: "ivf", extension: ".ivf" },
  { demuxer: "yuv4mpegpipe", extension: ".y4m" },
  { demuxer: "h264", extension: ".h264" },
  { demuxer: "hevc", extension: ".hevc" },
  { demuxer: "gif", extension: ".gif" },
] as const;

/** Sound and stills are opened as well, so that the refusal can name what they are. */
const REFUSED_BY_NAME = [
  "wav",
  "w64",
  "mp3",
  "aac",
  "ac3",
  "eac3",
  "flac",
  "aiff",
  "caf",
  "amr",
  "png_pipe",
  "jpeg_pipe",
  "webp_pipe",
  "bmp_pipe",
  "tiff_pipe",
  "apng",
];

/** Value of ffmpeg's `-format_whitelist`. */
export const OPENED_FORMATS = [...CONTAINERS.map(({ demuxer }) => demuxer), ...REFUSED_BY_NAME].join(",");

interface Contents {
  container: string;
  videoCodec: string;
}

/** One demuxer reads both; WebM is Matroska with these codecs. */
const WEBM = ".webm";
const WEBM_CODECS = new Set(["vp8", "vp9", "av1"]);
const UNKNOWN = ".film";

/** The file extension of a film, by its content and not by its name. */
export function extensionOf({ container, videoCodec }: Contents): string {
  if (container === "matroska,webm" && WEBM_CODECS.has(videoCodec)) return WEBM;
  return CONTAINERS.find(({ demuxer }) => demuxer === container)?.extension ?? UNKNOWN;
}
