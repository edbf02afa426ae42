import { counted, fixed, percent } from "./numbers";

export const libraryTexts = {
  /** components/library/add-film.tsx */
  addFilm: {
    filmFiles: "Film files",
    addAFilm: "Add a film",
    dropYourFilmsHere: "Drop your films here",
  },
  /** components/library/arrived-pictures.tsx */
  arrivedPictures: {
    arrivedAt: (time: string) => `Uploaded so far, at ${time}`,
    lookAtWhatHasArrived: "Preview what is uploaded",
    loadingAt: (time: string) => `Loading the picture at ${time}…`,
  },
  /** components/library/delete-film.tsx */
  deleteFilm: {
    isForGood: "Delete for good?",
    isDeleted: "Delete this film?",
    keepIt: "Keep it",
    delete: "Delete",
    deleteForGood: "Delete for good",
    andYourKeys: (shots: number, versions: number) =>
      `${counted(shots, "shot")}, ${counted(versions, "version")} and your keyframes`,
    originalStays: "The original stays where it is on this machine; it is never touched.",
    itsProxyAndItsRenders: (proxy: string, renders: string) => `Its proxy${proxy} and its renders${renders} go now.`,
    yourWorkInDaysUntil: (work: string, isLinked: boolean, size: string, daysKept: number) =>
      `Your work – ${work} – ${isLinked ? "goes" : `and its file in the library${size} go`} in ${daysKept} days; until then you can bring it back.`,
    yourWorkGoesNow: (work: string) => `Your work – ${work} – goes now.`,
    yourWorkAndItsFile: (work: string, size: string) =>
      `Your work – ${work} – and its file in the library${size} go now.`,
    thisCannotBeUndone: "This cannot be undone.",
  },
  /** components/library/film-actions.ts */
  filmActions: {
    isPutAway: "is archived",
    isDeleted: "is deleted",
    hasItsNewFile: "now uses its new file",
    undo: "Undo",
    isCalledNow: (name: string, newName: string) => `${name} is called ${newName} now.`,
  },
  /** components/library/film-card.tsx */
  filmCard: {
    fps: (width: number, height: number, fps: string) => `· ${width} × ${height} · ${fps} fps`,
    itsFileIsMissingAdd: "File missing. Add the same file from its new location to relink it.",
    found: (shots: number) => `${counted(shots, "shot")} found`,
    in: (clips: number) => ` in ${counted(clips, "clip")}`,
    deletedCanBeBroughtBack: (daysLeft: number) => `Deleted; can be brought back for ${counted(daysLeft, "more day")}.`,
    open: "Open",
    removeFilm: (name: string) => `Remove ${name}`,
    removeThisFilm: "Remove this film?",
    removeHint: (name: string) =>
      `${name}, its versions, your keyframes and its exports leave Glad Pan. The file that you added it from stays where it is. This cannot be undone.`,
    keepIt: "Keep it",
    remove: "Remove",
  },
  /** components/library/film-list.tsx */
  filmList: {
    picture: "Picture",
    name: "Name",
    length: "Length",
    shots: "Shots",
    versions: "Versions",
    space: "Space",
    added: "Added",
    more: "More",
    open: (name: string) => `Open ${name}`,
    fps: (width: number, height: number, fps: string) => `${width} × ${height}, ${fps} fps`,
    fileMissing: "file missing",
    failed: (count: number) => `${counted(count, "job")} failed`,
    underWay: (step: string, progress: number) => `${step} ${percent(progress)}`,
    waiting: "Waiting",
  },
  /** components/library/film-menu.tsx */
  filmMenu: {
    saveProject: "Save the project as a file",
    saveItWithTheFilm: "Save the project with its film",
    moreFor: (name: string) => `More for ${name}`,
    bringBack: "Bring back",
    delete: "Delete",
    deleteForGood: "Delete for good",
    rename: "Rename",
    duplicateWithItsWork: "Duplicate with its work",
    replaceItsFile: "Replace its file",
    joinWithOtherFilms: "Join with other films",
    putItsEarlierFileBack: "Restore its earlier file",
    takeOutAgain: "Unarchive",
    putAway: "Archive",
  },
  /** components/library/film-picker.tsx */
  filmPicker: {
    noOtherFilms: "No other films in your library.",
    filmsToSelect: "Films to select from",
    fps: (width: number, height: number, fps: string, timecode: string) =>
      `${width} × ${height} · ${fps} fps · ${timecode}`,
  },
  /** routes/films.tsx */
  filmsRoute: {
    exports: "Exports",
    filmsGladPan: "Films · Glad Pan",
    thereIsNoSuchJob: "This job no longer exists.",
    thereIsNoSuchFilm: "This film is not in your library.",
    uploads: "Uploads",
  },
  /** components/library/folder-browser.tsx */
  folderBrowser: {
    readingFolders: "Reading folders…",
    back: "back",
    noFilmsInThisFolder: "No films in this folder.",
  },
  /** components/library/job-status.tsx */
  jobStatus: {
    clipsWaiting: "Clips: waiting",
    proxyWaiting: "Proxy: waiting",
    analysisWaiting: "Analysis: waiting",
    markWaiting: "Mark: waiting",
    comparisonWaiting: "Comparison: waiting",
    renderWaiting: "Render: waiting",
    preparingTheClipsWasCancelled: "Preparing the clips was cancelled.",
    theProxyWasCancelled: "The proxy was cancelled.",
    theAnalysisWasCancelled: "The analysis was cancelled.",
    followingTheMarkWasCancelled: "Following the mark was cancelled.",
    theComparisonWasCancelled: "The comparison was cancelled.",
    theRenderWasCancelled: "The render was cancelled.",
    stopping: "Stopping",
    cancel: (what: string) => `Cancel: ${what}`,
    this: "this",
    retry: "Retry",
  },
  /** components/library/join-films.tsx */
  joinFilms: {
    filmsJoined: "Films joined",
    open: "Open",
    andMore: (title: string) => `${title} and more`,
    joinFilms: "Join films",
    joinHint:
      "Select the films in the order in which they follow one another. They stay as they are; the new film begins with the work on the first, and its clips can be moved, trimmed, replaced and taken out on the desk.",
    name: "Name",
    cancel: "Cancel",
    joinCount: (count: number) => `Join ${count} films`,
    join: "Join",
  },
  /** components/library/library-tools.tsx */
  libraryTools: {
    asCards: "As cards",
    asAList: "As a list",
    sections: "Sections",
    searchByName: "Search by name",
    order: "Order",
    layout: "Layout",
  },
  /** components/library/library-view.ts */
  libraryView: {
    films: "Films",
    putAway: "Archived",
    deleted: "Deleted",
    newestFirst: "Newest first",
    byName: "By name",
    longestFirst: "Longest first",
    largestFirst: "Largest first",
  },
  /** components/library/media-browser.tsx */
  mediaBrowser: {
    fromThisMachine: "From this machine",
    filmsOnThisMachine: "Films on this machine",
    linkHint: "Films stay where they are. Only the proxy and your work are stored in Glad Pan.",
    addAll: (count: number) => `Add all ${count} films of this folder`,
    addFilm: (name: string) => `Add ${name}`,
    added: "Added",
    add: "Add",
    adding: "Adding…",
  },
  /** components/library/rename-film.tsx */
  renameFilm: {
    rename: "Rename",
    nameOfTheFilm: "Name of the film",
    renameHint: "Exports are named after it. The film's own file keeps its name.",
    cancel: "Cancel",
  },
  /** components/library/replace-file.tsx */
  replaceFile: {
    replaceTitle: (name: string) => `Replace the file of ${name}`,
    looking: "Looking…",
    sending: (name: string) => `Sending ${name}`,
    waiting: "Waiting",
    cancel: "Cancel",
    useFilm: (name: string) => `Use ${name}`,
    use: "Use",
    selectHint:
      "Select a new export of this film. Its shots are compared with those of the film by their pictures, and you see what matches before anything changes. What you have set moves along; the earlier file can be put back for 30 days.",
    newExport: "New export",
    selectNewFile: "Select the new file",
    fromThisMachine: "From this machine",
    ofAreTheSame: (length: number, count: number) => `${length} of ${counted(count, "shot")} are the same.`,
    sOfItIsNew: (seconds: number) => `${fixed(seconds, 1)} s of it is new.`,
    keyframesLost: (keys: number) =>
      `${counted(keys, "keyframe")} of yours ${keys === 1 ? "has" : "have"} no place in it.`,
    marksLost: (marks: number) => `${counted(marks, "mark")} ${marks === 1 ? "has" : "have"} no place in it.`,
    itsPictureHasAnotherShape: "Its picture has another aspect ratio: look at your keyframes again.",
    shotsToReview: "Shots to review",
    toReview: (count: number) => `${counted(count, "shot")} to review`,
    theFilmIsAnalysedAgain:
      "The film is analysed again; its shots, subjects, marks and keyframes stay where they are found. Undo puts the earlier file back with everything as it is now.",
    keepTheCurrentFile: "Keep the current file",
    replaceTheFile: "Replace the file",
  },
  /** components/library/sections.tsx */
  sections: {
    films: "Films",
    emptyLibrary:
      "Nothing here yet. Add a finished film; Glad Pan finds its shots and follows whoever matters in each, and you get it back vertical, square or in any other aspect ratio. Your original is never touched.",
    noMatches: (search: string) => `No film in this section matches “${search}”.`,
  },
  /** components/library/storage-dialog.tsx */
  storageDialog: {
    storage: "Storage",
    clearHint:
      "Proxies are made again as you watch a film, and renders when you ask for them. Your work and the films themselves are not touched here.",
    film: "Film",
    file: "File",
    proxy: "Proxy",
    renders: "Renders",
    all: "All",
    free: (size: string) => `· ${size} free`,
    deleted: "· deleted",
    elsewhere: "elsewhere",
    none: "none",
    clearOf: (what: string, name: string) => `Clear the ${what} of ${name}`,
    clear: "Clear",
  },
  /** components/library/preset-choice.tsx */
  presetChoice: {
    preset: "Preset",
    presetLabel: "Preset for films that are added",
    none: "None",
    itsVersions: (count: number, names: string) => `${counted(count, "version")}: ${names}`,
    oneVerticalVersionWithEverything: "One vertical version with the defaults",
  },
  /** components/library/unfinished-uploads.tsx */
  unfinishedUploads: {
    unfinishedUploads: "Unfinished uploads",
    resumeHint: "Add the file again to resume its upload.",
    of: (part: string, all: string) => `${part} of ${all}`,
    discardUpload: (name: string) => `Discard the upload of ${name}`,
  },
  /** components/library/upload-card.tsx */
  uploadCard: {
    adding: "Adding",
    connectionLostTryingAgain: "Connection lost, trying again:",
    lookingInto: "Checking",
    of: (part: string, all: string) => `${part} of ${all}`,
    resumeTheUpload: "Resume the upload",
    close: "Close",
    stopThisUpload: "Stop this upload",
  },
  /** components/library/upload-film.ts */
  uploadFilm: {
    theConnectionToGladPan: (name: string) =>
      `${name}: the connection to Glad Pan was lost. Check that it is running, then resume the upload.`,
  },
};
