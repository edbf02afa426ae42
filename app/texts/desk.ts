import { counted } from "./numbers";

export const deskTexts = {
  /** components/desk/views/clips/clip-list.tsx */
  clipList: {
    clipsInOrder: "Clips in order",
    clip: (number: number, name: string) => `Clip ${number}: ${name}`,
    goTo: (name: string) => `Go to ${name}`,
    replaced: "replaced",
    new: "new",
    replace: (name: string) => `Replace ${name}`,
    takeOut: (name: string) => `Remove ${name}`,
    playheadHint: ": move the playhead into the clip first",
    itsFirstFrame: "its first frame",
    beginAtPlayhead: (hint: string) => `Begin the clip at the playhead${hint}`,
    showFromFirst: "Show the clip from its first frame",
    itsLastFrame: "its last frame",
    endAtPlayhead: (hint: string) => `End the clip at the playhead${hint}`,
    showToLast: "Show the clip to its last frame",
  },
  /** components/desk/views/clips/clips-panel.tsx */
  clipsPanel: {
    whatTheFilmIsMade: "The film's clips: add, reorder, trim, replace or remove them",
    clips: "Clips",
    thisFilmIsOneFile:
      "This film is one file. Add clips before or after it: each is converted to the film's frame rate and size, and what you have set stays.",
    addClips: "Add clips",
    keysSubjectsAndMarksMove: "Keyframes, subjects and marks move with their clips. You can undo this.",
    discard: "Discard",
    arranging: "Arranging",
    arrange: "Arrange",
    replaceClip: (name: string) => `Replace ${name}`,
    replaceHint: "What you have set for the clip stays, counted from its first frame. Select a film from your library:",
    selectFilms: "Select films from your library, in order. Add other films there first.",
    cancel: "Cancel",
    replace: "Replace",
    addCount: (count: number) => `Add ${counted(count, "clip")}`,
  },
  /** routes/cuts.ts */
  cutsRoute: {
    cutsAreWrittenAsEdl: "Cuts are written as edl, otio or csv.",
    aFileIsNeeded: "A file is needed.",
  },
  /** components/desk/desk.tsx */
  desk: {
    shotsOfTheFilm: "Shots of the film",
    youCanWorkOnAny:
      "You can work on any frame meanwhile: keyframes, splits, switches and marks stay as shots are found.",
    pictureAndLane: "Picture and lane",
    settings: "Settings",
  },
  /** components/desk/views/desk-header.tsx */
  deskHeader: {
    undo: "Undo",
    redo: "Redo",
    nothingTo: (name: string) => `Nothing to ${name}`,
  },
  /** components/desk/views/desk-panels.tsx */
  deskPanels: {
    widthOfTheShotList: "Width of the shot list",
    widthOfTheResult: "Width of the result",
    heightOfTheResult: "Height of the result",
    dragToResizeEnterFolds: "Drag to resize; Enter folds",
    movableBorder: "movable border",
  },
  /** routes/desk.tsx */
  deskRoute: {
    gladPan: (name: string) => `${name ?? "Film"} · Glad Pan`,
    thereIsNoSuchVersion: "This film has no such version.",
    thereIsNoSuchJob: "This job no longer exists.",
  },
  /** components/desk/model/edit-answer.ts */
  editAnswer: {
    noAnswer: "no answer",
    serverFailed: (status: number) => `Glad Pan failed (${status}). See its log.`,
    notResponding: "Glad Pan did not respond, so the change was not saved. Check that it is running.",
    changedElsewhere: "This film was changed in another window, so your change was not made.",
    thatDidNotWork: (error: string) => `That did not work: ${error}.`,
  },
  /** components/desk/model/edit-session.ts */
  editSession: {
    undone: "Undone",
    redone: "Redone",
  },
  /** components/desk/views/help/first-steps.tsx */
  firstSteps: {
    theShots: "The shots",
    eachShotOfTheFilm:
      "Each shot of the film has its own framing. A flag marks what may need your attention: click the shot to go there.",
    theWindow: "The window",
    whatLiesInsideTheWindow:
      "What lies inside the window is what the version shows. Drag it, and the frame gets a keyframe of yours that nothing overrides.",
    theLane: "The lane",
    theWindowsPathStraightUnder:
      "The window's path, straight under the picture: time runs down. Hollow dots are computed keyframes, filled dots are yours; drag them sideways or in time.",
    whoToFollow: "Who to follow",
    followText: "Select another subject, how the window moves, or a layout. Every change can be undone, also tomorrow.",
    export: "Export",
    whenItLooksRightHere: "When it looks right here, export all versions. Press ? at any time for the shortcuts.",
    firstSteps: "First steps",
    of: (number: number, shown: number) => `${number} of ${shown}`,
    skip: "Skip",
    back: "Back",
    next: "Next",
    done: "Done",
  },
  /** components/desk/views/shots/shot-filter.tsx */
  shotFilter: {
    allShots: "All shots",
    flagged: "Flags",
    withYourKeys: "With your keyframes",
    noSubject: "No subject",
    withText: "With text",
    leftOut: "Left out",
    show: (name: string) => `Show: ${name}`,
  },
  /** components/desk/views/shots/shot-list.tsx */
  shotList: {
    of: (shown: number, all: number) => `${shown} of ${counted(all, "shot")}`,
    shots: "Shots",
    wordsInThePicture: "Words in the picture",
    noMatches: "No shots match. Select “All shots” above to see them all.",
  },
  /** components/desk/views/fields/shot-name.tsx */
  shotName: {
    shot: (number: number) => `Shot ${number}`,
    nameOfTheShot: "Name of the shot",
    noName: "no name",
  },
  /** components/desk/views/shots/shot-row.tsx */
  shotRow: {
    shot: "Shot",
    ofThisShotIsLeft: (timecode: string) => `${timecode} of this shot is left out`,
    says: (words: readonly string[]) => words.map((line) => `“${line}”`).join(", "),
    partlyLeftOut: "Partly left out",
    leftOut: "left out",
    notAnalysed: "not analysed",
    noSubject: "no subject",
  },
  /** components/desk/views/shots/shot-tools.tsx */
  shotTools: {
    shots: "Shots",
    splitTheShotHere: "Split the shot here",
    switchHere: "Switch here: another subject from this frame on",
    joinWithTheNextShot: "Join with the next shot",
    bringThisShotBack: "Bring this shot back",
    leaveThisShotOut: "Leave this shot out",
  },
  /** components/desk/hooks/use-edits.ts */
  useEdits: {
    makeItAgain: "Apply it again",
  },
  /** components/desk/model/key-commands.ts */
  keyCommands: {
    keyCopiedTo: (names: string) => `Keyframe copied to ${names}.`,
  },
  /** components/desk/hooks/use-shots.ts */
  useShots: {
    pathFailed: (message: string) => `The path could not be computed: ${message}. Change the shot and try again.`,
  },
  /** components/desk/model/version-commands.ts */
  versionCommands: {
    copy: (name: string) => `${name}, copy`,
    removedAndItsKeys: (name: string) => `Removed “${name}” and its keyframes.`,
    undo: "Undo",
  },
  /** components/desk/views/version-bar.tsx */
  versionBar: {
    versions: "Versions",
    addAVersion: "Add a version",
    moreFor: (name: string) => `More for ${name}`,
    settings: "Settings",
    duplicate: "Duplicate",
    removeAFilmKeepsOne: "Remove (a film keeps one version)",
    remove: "Remove",
  },
};
