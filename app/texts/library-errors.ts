/** Why a request to the library is refused. */
export const libraryErrors = {
  /** library/projects */
  projects: {
    stillAnalysed: "the film is still being analysed; save or duplicate it when that is done",
    needsItsFilm: "the film is made of clips; save the project with its film",
    noProjectInside: "there is no Glad Pan project in it.",
    otherFilm: "the film in this project is not the one it was made for.",
    damaged: "this file is damaged or is not a Glad Pan project.",
    inconsistent: (why: string) => `the saved project is not consistent: ${why}.`,
  },
  /** library/films, library/folders */
  films: {
    clipsNotReady: "its clips are not ready yet.",
    fileMissing: "the file is missing. Add the same file from its new location to relink it.",
    notBeside: "nothing can be written beside it. Select another folder.",
    folderNotWritable: (folder: string) => `the folder ${folder} cannot be written to. Select another one.`,
    notHere: "This folder or film does not exist here.",
    cannotBeRead: (folder: string) => `${folder} cannot be read.`,
    noLongerThere: "the film no longer exists",
  },
  /** library/clips */
  clips: {
    filmIsGone: "one of the films is no longer in the library",
    isMadeOfClips: (film: string) => `${film} is made of clips itself; add these one by one`,
    fileIsMissing: (film: string) => `the file of ${film} is missing; put it back first`,
    needsOne: "a film needs at least one clip",
    atMost: (most: number) => `a film has at most ${most} clips`,
    clipIsGone: "one of the clips is no longer in the film",
    onlyOnce: "a clip can be in the film only once",
    mustBeAFilm: "a new clip has to be a film of the library",
    cannotArrange: (why: string) => `the clips cannot be arranged like this: ${why}`,
    selectTwo: "select two films or more",
  },
  /** library/exports, library/versions, jobs */
  exports: {
    notAnalysedYet: (version: string) => `part of what “${version}” shows has not been analysed yet; wait until it is`,
    tooLongForFormat: (version: string, seconds: number, format: string, most: number) =>
      `“${version}” lasts ${seconds.toFixed(1)} s; a ${format} lasts at most ${most} s. Select another format, or set in and out`,
    wrongSide: (version: string, least: number, most: number, format: string) =>
      `a side of “${version}” is not from ${least} to ${most} pixels, as ${format} takes`,
    nothingLeft: (version: string) => `nothing of the film is left in “${version}”; bring back a part of it`,
    noSuchFrame: "the film has no such frame",
    otherLayout: "the shot has another layout by now",
    shotIsGone: "this shot no longer exists",
    unreadableJob: "what was asked for can no longer be read; delete this and ask for it again",
  },
  /** library/replace */
  replace: {
    stillAnalysed: "the film is still being analysed; replace its file when that is done",
    madeOfClips: "the film is made of clips; replace these one by one, under Clips on its desk",
    timestampsRestart: "its timestamps restart. Export it again, or add it as a film of its own.",
    nothingCompared: "there is no new file to replace the film's with",
    compareAgain: "the film's shots have changed since it was compared; compare it again",
    notReplaced: "the film's file was not replaced",
  },
  /** db */
  stored: {
    versionExists: "a version with this id already exists",
    filmIsGone: "this film no longer exists",
    checkpointIsGone: "this checkpoint no longer exists",
    presetExists: (name: string) => `a preset called “${name}” already exists`,
    unreadable: (film: string) =>
      `what Glad Pan has stored of ${film} cannot be read. Restore a backup with ./glad-pan restore, or remove the film from the library and add it again; its file is untouched`,
  },
  /** disk/disk-space.server.ts */
  space: {
    isFull: (free: string, folder: string) => `the disk is full: ${free} free in ${folder}`,
    isLow: (free: string, folder: string) => `Disk space is low: ${free} free in ${folder}.`,
    cannotSave: (free: string, folder: string) =>
      `The disk is full: ${free} free in ${folder}. Changes cannot be saved until you free some space.`,
    notEnough: (what: string, needed: string, free: string, folder: string) =>
      `not enough space for ${what}: it takes about ${needed}, and only ${free} are free in ${folder}. Free some space and try again.`,
  },
  /** Why a start or a restore failed: one line in the terminal. */
  start: {
    diskIsFull: (why: string) => `${why}. Free some space and start again.`,
    cannotWrite: (folder: string, why: string) =>
      `cannot write to the data folder ${folder} (${why}). Change its permissions, or set GLAD_PAN_DATA to another folder.`,
    cannotLock: (folder: string, why: string) =>
      `cannot lock the data folder ${folder} (${why}). Change its permissions, or set GLAD_PAN_DATA to another folder.`,
    inUse: (folder: string, who: string) =>
      `the data folder ${folder} is in use by ${who}. Use that one, stop it, or set GLAD_PAN_DATA to another folder.`,
    process: (what: string, pid: number) => `${what} (process ${pid})`,
    anotherOne: "another Glad Pan",
    unknownReason: "unknown reason",
    databaseMissing:
      'the database is missing, but there are backups of it. Restore the newest: ./glad-pan restore. To start with an empty library instead, move the folder "backups" out of the data folder.',
    databaseEmpty:
      'the database is empty, but there are backups of it. Restore the newest: ./glad-pan restore. To start with an empty library instead, move the folder "backups" out of the data folder.',
    databaseDamaged: (damage: string) =>
      `the database is damaged (${damage}). Restore the newest backup: ./glad-pan restore`,
    databaseNewer:
      "the database was written by a newer Glad Pan. Start that one, or set GLAD_PAN_DATA to another folder.",
    noBackups: (folder: string) => `there is no backup in ${folder}`,
    noSuchBackup: (name: string) => `there is no backup "${name}"; ./glad-pan restore --list shows those there are`,
    selectAnother: (backup: string, why: string) => `${backup}: ${why}. Select another: ./glad-pan restore --list`,
    backupDamaged: (damage: string) => `this backup is damaged as well (${damage})`,
    noPreset: (name: string, why: string) => `there is no preset called "${name}": ${why}`,
    noLibrary: (folder: string) => `there is no library in ${folder}`,
    libraryOfAnother: "the library is of another version of Glad Pan; start it once with this one",
    presetsThereAre: (names: readonly string[]) => `there are ${names.map((name) => `"${name}"`).join(", ")}`,
    noPresetYet: "the library has no preset yet",
  },
};
