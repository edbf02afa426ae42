export const historyTexts = {
  /** components/desk/history/edit-list.tsx */
  editList: {
    asItWasFound: "As analysed",
    steps: "Steps",
    stepsNewestFirstClickOne: "Steps, newest first. Click one to go back to it, or on to it again.",
    now: "now",
  },
  /** components/desk/history/film-history.ts */
  filmHistory: {
    gladPanDidNotAnswer: "Glad Pan did not respond. Check that it is running.",
  },
  /** components/desk/history/history-panel.tsx */
  historyPanel: {
    history: "History",
    theHistoryCouldNotBe: "The history could not be loaded. Check that Glad Pan is running.",
    loading: "Loading…",
  },
  /** components/desk/history/named-states.tsx */
  namedStates: {
    deleted: (gone: string) => `Deleted “${gone}”.`,
    undo: "Undo",
    namedStates: "Named states",
    nameOfThisState: "Name of this state",
    nameThisStateSuchAs: "Name this state, such as “before client”",
    save: "Save",
    compareWithNow: "Compare with now",
    returnToThisState: "Return to this state",
    deleteThisNamedState: "Delete this named state",
  },
};
