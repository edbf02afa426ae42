import { counted, fixed, percent } from "./numbers";
import { textName } from "./text-name";

export const flagsTexts = {
  /** core/checks/covered-flags.ts */
  coveredFlags: {
    faceOutsideTheSafeArea: (seconds: number, share: number) =>
      `Face outside the safe area for ${fixed(seconds, 1)} s, up to ${percent(share)} of it`,
    textOutsideTheSafeArea: (words: string | null) => (seconds: number, share: number) =>
      `${textName(words)} outside the safe area for ${fixed(seconds, 1)} s, up to ${percent(share)} of it`,
  },
  /** core/checks/lacking-pictures.ts */
  lackingPictures: {
    cutOffFile: (cutOff: number, seconds: string) =>
      `The file is cut off: its last ${counted(cutOff, "frame")} (${seconds}) are missing`,
    notDecoded: (count: number, frames: number, timecode: string) =>
      `${count} of ${frames} frames cannot be decoded, the first at ${timecode}`,
    longestHold: (seconds: string, timecode: string) => `; the longest lasts ${seconds}, at ${timecode}`,
    repeatedFrames: (held: number, frames: number, where: string) =>
      `${held} of ${frames} frames repeat the previous one${where}`,
    frozenInFilm: (seconds: string) => `Frozen for ${seconds}: the film has no frames here`,
    notDecodedHere: (frames: number) => `${counted(frames, "frame")} cannot be decoded; the previous frame is repeated`,
  },
  /** core/checks/layout-offers.ts */
  layoutOffers: {
    showItWhole: "Show it whole",
    wholeHint: "Shows the whole picture of this shot on a backdrop",
    stackTheTwo: "Stack the two",
    stackHint: "Divides the frame: each gets its own pane, path and keyframes",
    giveItAPane: "Give it a pane",
    paneHint: "Shows it in a pane of its own, below what the shot follows",
    yourText: "Your text",
    replaceIt: "Replace it",
    replaceTextHint: "Covers the text and lays your own over it",
  },
  /** core/checks/cut-flags.ts */
  cutFlags: {
    cutUncertain: (strength: number) => `Cut uncertain (${percent(strength)})`,
    shortShot: (frames: number) => `This shot has only ${counted(frames, "frame")}`,
    twoAlike: (side: string) => `Two similar subjects; the one on the ${side} is not followed`,
    twoApart: (side: string) =>
      `Two subjects do not fit in the window together; the one on the ${side} is not followed`,
  },
  /** core/checks/framing-flags.ts */
  framingFlags: {
    subjectUncertain: (certainty: number) => `Subject uncertain (${percent(certainty)})`,
    subjectNotSeen: (seconds: number) => `Subject not seen for ${fixed(seconds, 1)} s`,
    faceCutOff: (seconds: number, share: number) =>
      `Face cut off for ${fixed(seconds, 1)} s, up to ${percent(share)} of it`,
    subjectCutOff: (seconds: number, share: number) =>
      `Subject cut off for ${fixed(seconds, 1)} s, up to ${percent(share)} of it`,
    protectedAreaCutOff: (seconds: number, share: number) =>
      `Protected area cut off for ${fixed(seconds, 1)} s, up to ${percent(share)} of it`,
    insetCutOff: (seconds: number, share: number) =>
      `Inset cut off for ${fixed(seconds, 1)} s, up to ${percent(share)} of it`,
    textCutOff: (words: string | null, mayBeSign: boolean) => (seconds: number, share: number) =>
      `${textName(words, mayBeSign)} cut off for ${fixed(seconds, 1)} s, up to ${percent(share)} of it`,
    enlarged: (scale: number) => `Scale ${percent(scale)}, which may look soft`,
  },
  /** core/version/flags-of-framing.ts */
  flagsOfFraming: {
    inPane: (pane: number, text: string) => `Pane ${pane}: ${text}`,
  },
  /** core/checks/people-flags.ts */
  peopleFlags: {
    nobodyInTheFrame: (seconds: number) =>
      `Nobody in the frame for ${fixed(seconds, 1)} s, while somebody is beside it`,
    yourMark: "What you marked",
    mustBeInThePicture: (letter: string, seconds: number) =>
      `${letter} must be in the picture and is missing for ${fixed(seconds, 1)} s`,
    lookingRoom: (seconds: number) => `Too little looking room for ${fixed(seconds, 1)} s`,
  },
  /** core/checks/window-flags.ts */
  windowFlags: {
    movesAtTheStart: (speed: number) =>
      `The window is already moving at the cut (${percent(speed)} of its width per second)`,
    movesAtTheEnd: (speed: number) =>
      `The window is still moving at the cut (${percent(speed)} of its width per second)`,
    atThePicturesEdge: (seconds: number, beside: number) =>
      `The window is at the edge of the picture for ${fixed(seconds, 1)} s, its subject up to ${percent(beside)} off centre`,
  },
  /** core/checks/join-flags.ts */
  joinFlags: {
    eyeTraceJump: (share: number) => `Eye-trace jump of ${percent(share)} of the frame at this cut`,
  },
  /** core/checks/picture-faults.ts */
  pictureFaults: {
    flashes: (seconds: number) => `The picture flashes for ${fixed(seconds, 1)} s, more than three times per second`,
    black: (seconds: number) => `Black for ${fixed(seconds, 1)} s`,
    frozen: (seconds: number) => `Frozen for ${fixed(seconds, 1)} s`,
  },
  /** core/checks/caption-flags.ts */
  captionFlags: {
    tooQuick: (pace: number, most: number) =>
      `Caption too quick: ${fixed(pace, 0)} characters per second; ${fixed(most, 0)} can be read`,
  },
};
