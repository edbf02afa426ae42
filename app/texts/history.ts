export const historyTexts = {
  /** components/desk/views/history/edit-list.tsx */
  editList: {
    asAnalysed: "As analysed",
    steps: "Steps",
    howTo: "Newest first. Click a step to go back to it, or forward to it again.",
    now: "now",
  },
  /** components/desk/views/history/history-panel.tsx */
  historyPanel: {
    history: "History",
    couldNotBeLoaded: "The history could not be loaded. Check that Glad Pan is running.",
    loading: "Loading…",
  },
  /** components/desk/views/checkpoints/checkpoints-panel.tsx */
  checkpoints: {
    checkpoints: "Checkpoints",
    couldNotBeLoaded: "The checkpoints could not be loaded. Check that Glad Pan is running.",
    none: "No checkpoints yet. A checkpoint keeps all settings of the film as they are now.",
    name: "Name of the checkpoint",
    namePlaceholder: "Name, such as “before client”",
    save: "Save",
    compareWithNow: "Compare with now",
    goBack: "Go back to this checkpoint",
    delete: "Delete this checkpoint",
    deleted: (name: string) => `Deleted “${name}”.`,
    undo: "Undo",
  },
  /** components/desk/hooks/film-checkpoints.ts */
  filmCheckpoints: {
    notResponding: "Glad Pan did not respond. Check that it is running.",
  },
  /** routes/checkpoints.ts */
  checkpointsRoute: {
    alreadyThere: "a checkpoint with this id already exists; load the page again",
    gone: "this checkpoint no longer exists",
  },
};
