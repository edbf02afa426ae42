import { percent } from "./numbers";

export const reasonsTexts = {
  /** core/path/choose-manner.ts */
  chooseManner: {
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
    thereAreNoTwoTo: "there are no two to keep together",
    theTwoAreNeverSeen: "the two are never seen together",
    theTwoDoNotFit: "the two do not fit together",
    twoTogetherOfTheTime: (fitting: number) => `two together, ${percent(fitting)} of the time both fit in the window`,
    balanceOf: (count: number) => `balance of ${count === 1 ? "one thing" : `${count} things`}`,
    nobodySeenSpeaking: "nobody seen speaking",
    theSpeaker: "the speaker",
    speakersAllInTheWindow: (size: number) => `${size} speakers, all in the window`,
    speakersTurns: (size: number, count: number) => `${size} speakers, ${count} turns`,
    nothingIsFollowedAsYou: "follows nothing, as chosen",
    second: (reason: string) => `second: ${reason}`,
    thereIsNoSecond: "there is no second",
    yourChoice: (reason: string) => `your choice, ${reason}`,
    notInThisShot: "not in this shot",
    whatYouChoseIsNot: "what you chose is no longer in this shot",
    markedByYou: "marked by you",
    chosenByYou: "chosen by you",
  },
  /** core/path/manner.ts */
  manner: {
    still: "Still",
    onePlaceForTheWhole: "One place for the whole shot",
    glide: "Glide",
    longHoldsAndFewEased: "Long holds and few, eased moves",
    chase: "Chase",
    staysCloseToTheSubject: "Stays close to the subject",
  },
  /** core/subjects/choosing/rank.ts */
  rank: {
    markedByYou: "marked by you",
    movingThing: "moving thing",
    thingThatStandsOut: "thing that stands out",
    partOfAPictureMade: "part of a picture made of several",
    largest: (what: string) => `largest ${what}`,
    only: (what: string) => `only ${what}`,
    followedBefore: "followed before",
    ofTheShot: (presence: number) => `${percent(presence)} of the shot`,
  },
};
