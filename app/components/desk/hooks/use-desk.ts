import { createContext, useContext } from "react";
import { useStore } from "zustand";
import { useShallow } from "zustand/react/shallow";
import type { DeskModel, DeskStore } from "../model/desk-model";

export const DeskContext = createContext<DeskStore | null>(null);

/** The desk's model itself, to be read later in event handlers. Works only below the desk. */
export function useDeskStore(): DeskStore {
  const store = useContext(DeskContext);
  if (!store) throw new Error("this belongs on the desk");
  return store;
}

/** Parts of the desk's model, by name; the component renders again only when one of them changes. */
export function useDesk<Name extends keyof DeskModel>(...names: Name[]): Pick<DeskModel, Name> {
  return useStore(
    useDeskStore(),
    useShallow((desk) => Object.fromEntries(names.map((name) => [name, desk[name]])) as Pick<DeskModel, Name>),
  );
}
