import { counted } from "./numbers";

export const refusalsTexts = {
  /** core/edits/apply-keys.ts */
  applyKeys: {
    aKeyLiesBeyondThe: "a keyframe lies beyond the range that it was made for",
  },
  /** core/edits/apply-layers.ts */
  applyLayers: {
    theLayerIsNotThere: "this layer no longer exists",
  },
  /** core/edits/apply-shots.ts */
  applyShots: {
    theFilmIsStillBeing: "the film is still being analysed; change the cut sensitivity when that is done",
  },
  /** core/edits/apply-subjects.ts */
  applySubjects: {
    thisPersonIsNotThere: "this person no longer exists",
  },
  /** core/edits/apply-trims.ts */
  applyTrims: {
    thisClipIsNotIn: "this clip is no longer in the film",
  },
  /** core/edits/apply-versions.ts */
  applyVersions: {
    thereIsAVersionWith: "a version with this id already exists",
  },
  /** core/edits/find.ts */
  find: {
    thisVersionIsNotThere: "this version no longer exists",
  },
  /** core/edits/invariants.ts */
  invariants: {
    whatIsProtectedLiesOutside: "the protected area lies outside the picture",
    aShotCannotReachFrom: (start: number, end: number) => `a shot cannot reach from frame ${start} to ${end}`,
    theShotsLeaveAGap: (covered: number) => `the shots leave a gap or overlap at frame ${covered}`,
    theShotAtFrameIs: (start: number) => `the shot at frame ${start} is mixed with another outside the film`,
    theActiveAreaIsToo: "the picture area is too small or not in the picture",
    theShotsEndAtFrame: (covered: number, end: number) => `the shots end at frame ${covered}, not at ${end}`,
    theFilmHasNoFrame: (frame: number) => `the film has no frame ${frame}`,
    theWindowAtFrameWould: (frame: number) => `the window at frame ${frame} would leave the picture`,
    cannotReachFromFrameTo: (name: string, start: number, end: number) =>
      `"${name}" cannot reach from frame ${start} to ${end}`,
    cannotDropFramesTo: (name: string, start: number, end: number) =>
      `"${name}" cannot leave out frames ${start} to ${end}`,
    twoLayersCannotHaveOne: "two layers cannot have one id",
    hasAtMostLayers: (name: string, mostLayers: number) => `“${name}” has at most ${mostLayers} layers`,
    aLayerOfCannotBe: (name: string) => `a layer of “${name}” cannot be there where the film is not`,
    framesAShotThatIs: (name: string) => `"${name}" frames a shot that is not the film's`,
    aFilmKeepsAtLeast: "a film needs at least one version",
    mostVersions: (maxVersions: number) => `a film has at most ${maxVersions} versions`,
    mostMarks: (maxMarks: number) => `a film has at most ${maxMarks} marks`,
    theMarkAtFrameLies: (frame: number) => `the mark at frame ${frame} lies outside the picture`,
    theClipsLeaveAGap: (covered: number) => `the clips leave a gap or overlap at frame ${covered}`,
    hasNoSuchInAnd: (name: string) => `“${name}” has no such in and out points`,
    theClipsEndAtFrame: (covered: number, frames: number) => `the clips end at frame ${covered}, not at ${frames}`,
    aPersonCannotBeSomebody: "a person can only be merged with somebody in the film",
    aPersonCannotBeThemselves: "a person cannot be merged into themselves",
    mostTrackEdits: (maxTrackEdits: number) => `a film has at most ${maxTrackEdits} changed tracks`,
    aTrackCannotBeJoined: "a track cannot be joined to itself",
    framesToOfATrack: (start: number, end: number) => `frames ${start} to ${end} of a track are not in the film`,
    mostCaptions: (most: number) => `a film has at most ${counted(most, "caption")}`,
    captionOutside: (text: string) => `the caption “${text}” lies outside the film`,
    twoThingsCannotHaveOne: "two things cannot have one id",
  },
  /** core/shots/reshape.ts */
  reshape: {
    thisShotIsNotThere: "this shot no longer exists",
    aShotAlreadyBeginsAt: "a shot already begins at this frame",
    itTakesTwoShotsTo: "it takes two shots to join",
    onlyShotsThatFollowOne: "only shots that follow one another can be joined",
    theFirstShotBeginsWhere: "the first shot begins where the film does",
    aShotKeepsAtLeast: "a shot needs at least one frame; join it with its neighbour instead",
  },
};
