import { counted, inWords, percent } from "./numbers";

export const reasonsTexts = {
  /** core/path/choose-movement.ts */
  chooseMovement: {
    nothingToFollow: "nothing to follow",
    comesOverFromTheShot: "continues from the previous shot",
    staysInPlace: "stays in place",
    movesQuickly: "moves quickly",
    movesNowAndThen: "moves now and then",
  },
  /** core/subjects/choosing/follow.ts */
  follow: {
    noClearSubject: (prefix: string) => `${prefix}no clear subject`,
    twoAlikeOfTheTime: (fitting: number) => `two alike, ${percent(fitting)} of the time both fit in the window`,
    noTwo: "there are no two to keep together",
    theTwoAreNeverSeen: "the two are never seen together",
    theTwoDoNotFit: "the two do not fit together",
    twoTogetherOfTheTime: (fitting: number) => `two together, ${percent(fitting)} of the time both fit in the window`,
    balanceOf: (count: number) => `balance of ${count === 1 ? "one thing" : `${count} things`}`,
    nobodySeenSpeaking: "nobody seen speaking",
    theSpeaker: "the speaker",
    speakersAllInTheWindow: (size: number) => `${inWords(size)} speak, all in the window`,
    talkInTurn: (size: number, count: number) =>
      `${inWords(size)} talk in turn, ${counted(count, "switch", "switches")}`,
    attentionPassesOn: (count: number, first: string) => `${counted(count, "switch", "switches")}: ${first}`,
    severalTogetherOfTheTime: (size: number, fitting: number) =>
      Number.isNaN(fitting)
        ? `${inWords(size)} kept together`
        : `${inWords(size)} together, in the window ${percent(fitting)} of the time`,
    followsNothing: "follows nothing, as set",
    second: (reason: string) => `second: ${reason}`,
    thereIsNoSecond: "there is no second",
    yourChoice: (reason: string) => `your choice, ${reason}`,
    notInThisShot: "not in this shot",
    selectedIsGone: "what you selected is no longer in this shot",
    mustHave: "must be in the picture",
    mustHaveMissing: "somebody who must be in the picture is missing",
    yourSwitches: (count: number) =>
      count === 0 ? "set by you" : `${counted(count, "switch", "switches")}, set by you`,
    markedByYou: "marked by you",
    setByYou: "set by you",
  },
  /** core/path/movement.ts */
  movement: {
    still: "Still",
    onePlaceForTheWhole: "One place for the whole shot",
    glide: "Glide",
    longHoldsAndFewEased: "Long holds and few, eased moves",
    chase: "Chase",
    staysCloseToTheSubject: "Stays close to the subject",
  },
  /** core/subjects/attention/switches.ts */
  causes: {
    speaks: "another speaks",
    left: "the one before has left",
    enters: "another comes in",
    acts: "another begins to move",
    together: "both fit in the window",
    matters: "another is more prominent",
    set: "set by you",
  },
  /** core/subjects/choosing/rank.ts */
  rank: {
    markedByYou: "marked by you",
    heldThing: "thing in a hand",
    movingThing: "moving thing",
    thingThatStandsOut: "thing that stands out",
    partOfAPictureMade: "part of a picture made of several",
    largest: (what: string) => `largest ${what}`,
    only: (what: string) => `only ${what}`,
    followedBefore: "followed before",
    ofTheShot: (presence: number) => `${percent(presence)} of the shot`,
  },
};
