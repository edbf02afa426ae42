import { createContext, useContext } from "react";

/** What holds for the library as a whole. */
export interface LibraryContent {
  /** Whether the operator has opened folders of this machine. */
  hasFolders: boolean;
}

export const LibraryContext = createContext<LibraryContent>({ hasFolders: false });

export const useLibrary = (): LibraryContent => useContext(LibraryContext);
