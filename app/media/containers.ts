/**
 * The containers that films come in: ffmpeg's name for what reads them, the extension and the media type that they are
 * kept and sent with. What is not in this list is not opened: play lists and manifests make ffmpeg read other files.
 */
const CONTAINERS = [
  { demuxer: "mov,mp4,m4a,3gp,3g2,mj2", extension: ".mp4", mediaType: "video/mp4" },
  { demuxer: "matroska,webm", extension: ".mkv", mediaType: "video/x-matroska" },
  { demuxer: "avi", extension: ".avi", mediaType: "video/x-msvideo" },
  { demuxer: "mpegts", extension: ".ts", mediaType: "video/mp2t" },
  { demuxer: "mpeg", extension: ".mpg", mediaType: "video/mpeg" },
  { demuxer: "mpegvideo", extension: ".m2v", mediaType: "video/mpeg" },
  { demuxer: "asf", extension: ".wmv", mediaType: "video/x-ms-wmv" },
  { demuxer: "flv", extension: ".flv", mediaType: "video/x-flv" },
  { demuxer: "mxf", extension: ".mxf", mediaType: "application/mxf" },
  { demuxer: "gxf", extension: ".gxf", mediaType: "application/octet-stream" },
  { demuxer: "ogg", extension: ".ogv", mediaType: "video/ogg" },
  { demuxer: "dv", extension: ".dv", mediaType: "video/x-dv" },
  { demuxer: "nut", extension: ".nut", mediaType: "application/octet-stream" },
  { demuxer: "ivf", extension: ".ivf", mediaType: "application/octet-stream" },
  { demuxer: "yuv4mpegpipe", extension: ".y4m", mediaType: "application/octet-stream" },
  { demuxer: "h264", extension: ".h264", mediaType: "application/octet-stream" },
  { demuxer: "hevc", extension: ".hevc", mediaType: "application/octet-stream" },
  { demuxer: "gif", extension: ".gif", mediaType: "image/gif" },
] as const;

/** Sound and stills are opened as well, so that they can be refused by what they are. */
const REFUSED_BY_NAME = [
  ...["wav", "w64", "mp3", "aac", "ac3", "eac3", "flac", "aiff", "caf", "amr"],
  ...["png_pipe", "jpeg_pipe", "webp_pipe", "bmp_pipe", "tiff_pipe", "apng"],
];

/** What ffmpeg's `-format_whitelist` is given. */
export const OPENED_FORMATS = [...CONTAINERS.map(({ demuxer }) => demuxer), ...REFUSED_BY_NAME].join(",");

interface Contents {
  container: string;
  videoCodec: string;
}

/** One demuxer reads both; WebM is Matroska with these codecs. */
const WEBM = { extension: ".webm", mediaType: "video/webm" };
const WEBM_CODECS = new Set(["vp8", "vp9", "av1"]);
const UNKNOWN = { extension: ".film", mediaType: "application/octet-stream" };

function kindOf({ container, videoCodec }: Contents): { extension: string; mediaType: string } {
  if (container === "matroska,webm" && WEBM_CODECS.has(videoCodec)) return WEBM;
  return CONTAINERS.find(({ demuxer }) => demuxer === container) ?? UNKNOWN;
}

/** The extension that a film is kept with, from what is in it and not from its name. */
export const extensionOf = (film: Contents): string => kindOf(film).extension;

/** The media type that a film is sent with. */
export const mediaTypeOf = (film: Contents): string => kindOf(film).mediaType;
