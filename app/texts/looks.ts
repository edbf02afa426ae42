import { counted, fixed, percent } from "./numbers";

export const looksTexts = {
  /** core/checks/covered-looks.ts */
  coveredLooks: {
    faceOutsideTheSafeArea: (covered: number, seen: number) =>
      `Face outside the safe area in ${covered} of ${counted(seen, "frame")}`,
  },
  /** core/checks/lacking-pictures.ts */
  lackingPictures: {
    theFileIsCutOff: (cutOff: number, seconds: string) =>
      `The file is cut off: its last ${counted(cutOff, "frame")} (${seconds}) are missing`,
    ofFramesCannotBeDecoded: (count: number, frames: number, timecode: string) =>
      `${count} of ${frames} frames cannot be decoded, the first at ${timecode}`,
    theLongestFreezeLastsAt: (seconds: string, timecode: string) =>
      `; the longest freeze lasts ${seconds}, at ${timecode}`,
    ofFramesRepeatThePrevious: (held: number, frames: number, where: string) =>
      `${held} of ${frames} frames repeat the previous one${where}`,
    thePictureFreezesForThe: (seconds: string) => `The picture freezes for ${seconds}: the file has no frames here`,
    cannotBeDecodedThePrevious: (frames: number) =>
      `${counted(frames, "frame")} cannot be decoded; the previous frame is repeated`,
  },
  /** core/checks/layout-offers.ts */
  layoutOffers: {
    showItWhole: "Show it whole",
    showsTheWholePictureOf: "Shows the whole picture of this shot on a backdrop",
    stackTheTwo: "Stack the two",
    dividesTheFrameEachHas: "Divides the frame: each gets its own pane, path and keys",
    giveItAPane: "Give it a pane",
    showsItInAPane: "Shows it in a pane of its own, below what the shot follows",
    yourText: "Your text",
    replaceIt: "Replace it",
    coversTheTextAndLays: "Covers the text and lays your own over it",
  },
  /** core/checks/second-looks.ts */
  secondLooks: {
    cutUncertain: (strength: number) => `Cut uncertain (${percent(strength)})`,
    thisShotHasOnly: (frames: number) => `This shot has only ${counted(frames, "frame")}`,
    subjectUncertain: (certainty: number) => `Subject uncertain (${percent(certainty)})`,
    subjectNotSeenFor: (frames: number) => `Subject not seen for ${counted(frames, "frame")}`,
    subjectCutOff: (cut: number, frames: number) => `Subject cut off in ${cut} of ${counted(frames, "frame")}`,
    protectedAreaCutOff: (cut: number, frames: number) =>
      `Protected area cut off in ${cut} of ${counted(frames, "frame")}`,
    inset: "Inset",
    text: "Text",
    cutOffInOf: (what: string, cut: number, seen: number) => `${what} cut off in ${cut} of ${counted(seen, "frame")}`,
    enlargedTimesWhichMayLook: (times: number) => `Enlarged ${fixed(times, 1)} times, which may look soft`,
    twoSimilarSubjectsTheOne: (side: string) => `Two similar subjects; the one on the ${side} is not followed`,
    twoSubjectsDoNotFit: (side: string) =>
      `Two subjects do not fit in the window together; the one on the ${side} is not followed`,
  },
};
