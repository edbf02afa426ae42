/** Why a film cannot be read, decoded or encoded. Each follows the film's name and a colon, and says what to do. */
export const filmErrors = {
  /** media/probe.server.ts */
  probe: {
    noSuchFile: "there is no such file. Check the name and the folder.",
    empty: "the file is empty. Copy or export it again.",
    indexMissing: "the file is cut off (its index is missing). Copy or export it again.",
    notAFilm: "this is not a film, or it is damaged. Use a video file such as MP4, MOV, MKV or WebM.",
    onlySound: "there is sound in this file but no picture. Use a video file.",
    noPicture: "this is not a film: there is no picture in it. Use a video file such as MP4, MOV, MKV or WebM.",
    unknownCodec: (tag: string | null) =>
      `its video codec is not supported${tag === null ? "" : ` (“${tag}”)`}. Export it as H.264, H.265 or ProRes.`,
    encrypted: "it is encrypted (copy protection), so its pictures cannot be seen. Use a copy without it.",
    noFrames: "this file has no frames, or none with a timestamp. Copy or export it again.",
    still: "this is a still picture. Use a film of two frames or more.",
    tooLong: (frames: number, most: number) =>
      `it has ${frames} frames, more than the ${most} that are supported. Export it in parts.`,
    claimsTooMuch: (claimed: number, held: number) =>
      `it claims to have ${claimed} frames but holds ${held}; it is damaged. Copy or export it again.`,
    tooSmall: (width: number, height: number) => `the picture is only ${width} × ${height} pixels, too small to crop.`,
    tooLarge: (width: number, height: number) =>
      `the picture is ${width} × ${height} pixels, larger than is supported. Export it in 8K or less.`,
  },
  /** media/film-tool.server.ts, media/decode.server.ts, media/poster.server.ts */
  decoding: {
    listOfFiles: "this is a list of files, not a film. Use a film.",
    stalled: "reading it stalled for a minute and was stopped. Copy or export it again.",
    noMemory: "there is not enough memory to decode it. Close other programs, or export it smaller.",
    missing: "its file is missing. Put it back, or add the film again.",
    cannotEncode: (detail: string) => `it cannot be encoded like this (${detail}). Select another format or size.`,
    cannotDecode: (detail: string) => `it cannot be decoded (${detail}); it may be damaged. Copy or export it again.`,
    nothingDecodes: "none of its frames can be decoded; it is damaged. Copy or export it again.",
    stopsAt: (frame: number) => `it cannot be decoded from frame ${frame} on; it is damaged. Copy or export it again.`,
  },
  /** media/film-choices.ts */
  choices: {
    noSuchSound: (sounds: number, wanted: number) => `it has ${sounds} audio tracks, and none with number ${wanted}`,
    notInterlaced: "it is not interlaced, so its frame rate cannot be doubled",
  },
  /** media/render */
  encoding: {
    notInParts: (format: string) => `${format} cannot be made in parts. Render it in one go.`,
    sizeTooSmall: (megabytes: number, seconds: number, width: number, height: number) =>
      `${megabytes} MB is too little for ${seconds.toFixed(0)} s at ${width} × ${height}.`,
    sizeNotReached: (megabytes: number) =>
      `it does not get as small as ${megabytes} MB. Allow more, or select a smaller frame size.`,
  },
};
