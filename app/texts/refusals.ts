import { counted } from "./numbers";

export const refusalsTexts = {
  /** core/edits/apply-keys.ts */
  applyKeys: {
    keyframeBeyondRange: "a keyframe lies beyond the range that it was made for",
  },
  /** core/edits/apply-layers.ts */
  applyLayers: {
    layerGone: "this layer no longer exists",
  },
  /** core/edits/apply-shots.ts */
  applyShots: {
    stillAnalysing: "the film is still being analysed; change the cut sensitivity when that is done",
  },
  /** core/edits/apply-subjects.ts */
  applySubjects: {
    personGone: "this person no longer exists",
  },
  /** core/edits/apply-trims.ts */
  applyTrims: {
    clipGone: "this clip is no longer in the film",
  },
  /** core/edits/apply-versions.ts */
  applyVersions: {
    versionExists: "a version with this id already exists",
  },
  /** core/version/find.ts */
  find: {
    versionGone: "this version no longer exists",
  },
  /** core/edits/invariants.ts */
  invariants: {
    protectedOutside: "the protected area lies outside the picture",
    shotRange: (start: number, end: number) => `a shot cannot reach from frame ${start} to ${end}`,
    shotsGap: (covered: number) => `the shots leave a gap or overlap at frame ${covered}`,
    shotMixedOutside: (start: number) => `the shot at frame ${start} is mixed with another outside the film`,
    pictureAreaInvalid: "the picture area is too small or not in the picture",
    shotsEndEarly: (covered: number, end: number) => `the shots end at frame ${covered}, not at ${end}`,
    theFilmHasNoFrame: (frame: number) => `the film has no frame ${frame}`,
    windowOutside: (frame: number) => `the window at frame ${frame} would leave the picture`,
    versionRange: (name: string, start: number, end: number) => `“${name}” cannot reach from frame ${start} to ${end}`,
    leftOutRange: (name: string, start: number, end: number) => `“${name}” cannot leave out frames ${start} to ${end}`,
    duplicateLayer: "two layers cannot have one id",
    tooManyLayers: (name: string, mostLayers: number) => `“${name}” has at most ${mostLayers} layers`,
    layerOutside: (name: string) => `a layer of “${name}” cannot be there where the film is not`,
    foreignShot: (name: string) => `“${name}” frames a shot that is not the film's`,
    needsOneVersion: "a film needs at least one version",
    mostVersions: (maxVersions: number) => `a film has at most ${maxVersions} versions`,
    mostMarks: (maxMarks: number) => `a film has at most ${maxMarks} marks`,
    markOutside: (frame: number) => `the mark at frame ${frame} lies outside the picture`,
    clipsGap: (covered: number) => `the clips leave a gap or overlap at frame ${covered}`,
    clipPointsInvalid: (name: string) => `“${name}” has no such in and out points`,
    clipsEndEarly: (covered: number, frames: number) => `the clips end at frame ${covered}, not at ${frames}`,
    mergeTargetGone: "a person can only be merged with somebody in the film",
    mergeWithSelf: "a person cannot be merged into themselves",
    mostTrackEdits: (maxTrackEdits: number) => `a film has at most ${maxTrackEdits} changed tracks`,
    joinWithSelf: "a track cannot be joined to itself",
    trackRange: (start: number, end: number) => `frames ${start} to ${end} of a track are not in the film`,
    mostCaptions: (most: number) => `a film has at most ${counted(most, "caption")}`,
    captionOutside: (text: string) => `the caption “${text}” lies outside the film`,
    duplicateThing: "two things cannot have one id",
  },
  /** core/shots/reshape.ts */
  reshape: {
    shotGone: "this shot no longer exists",
    shotBeginsHere: "a shot already begins at this frame",
    needsTwoShots: "it takes two shots to join",
    onlyNeighbours: "only shots that follow one another can be joined",
    firstShotFixed: "the first shot begins where the film does",
    needsOneFrame: "a shot needs at least one frame; join it with its neighbour instead",
  },
};
