/**
 * The desk's model: its inputs, what is selected and open, what follows from these, and the commands. It knows nothing of
 * React; views read parts of it with `useDesk`.
 */
import { createStructuredSelector } from "reselect";
import { createStore, type StoreApi } from "zustand/vanilla";
import { deskSelector } from "./desk-selector";
import { NO_SHOTS, type ShotChoice, shotSelection } from "./shot-selection";
import { captionCommands } from "./caption-commands";
import { checks, FIRST_FILTER, type FlagFilter } from "./checks";
import type { Comparison } from "./comparison";
import type { DeskInputs } from "./desk-inputs";
import type { Drawing } from "./drawing";
import { keyCommands } from "./key-commands";
import { layerCommands } from "./layer-commands";
import { type MarkedRange, rangeCommands } from "./ranges";
import { reshape, type ReshapedPath } from "./reshape";
import { resultLook } from "./result-look";
import { type KeyChoice, NO_KEYS, selectedKeys } from "./selected-keys";
import { type ShotCommands, shotCommands } from "./shot-commands";
import { type SubjectCommands, subjectCommands } from "./subject-commands";
import { type VersionCommands, versionCommands } from "./version-commands";
import { windowFacts } from "./window-facts";

/** What the panel below the result can show. */
export type PanelName = "shot" | "keys" | "layers" | "captions";

/** What is selected and open on the desk. */
export interface DeskChoices {
  /** What the panel below the result shows. */
  panel: PanelName;
  /** The selected layer; null for none. */
  layerId: string | null;
  /** Purpose of the box that is being drawn; null while none is. */
  drawing: Drawing | null;
  shotChoice: ShotChoice;
  keyChoice: KeyChoice;
  /** The selected caption; null for none. */
  captionId: string | null;
  /** The marked range of the lane; null for none. */
  markedRange: MarkedRange;
  /** A path that is being reshaped; null while none is. */
  reshaped: ReshapedPath | null;
  /** What the version is compared with; null for nothing. */
  comparison: Comparison | null;
  showsOther: boolean;
  /** The element that holds the result. */
  resultPart: HTMLElement | null;
  flagFilter: FlagFilter;
  /** Print of the current flag; null for none. */
  flagPrint: string | null;
  showsFlags: boolean;
}

const FIRST_CHOICES: DeskChoices = {
  panel: "shot",
  layerId: null,
  drawing: null,
  shotChoice: NO_SHOTS,
  keyChoice: NO_KEYS,
  captionId: null,
  markedRange: null,
  reshaped: null,
  comparison: null,
  showsOther: false,
  resultPart: null,
  flagFilter: FIRST_FILTER,
  flagPrint: null,
  showsFlags: false,
};

export type DeskGiven = DeskInputs & DeskChoices;

interface DeskActions {
  shotCommands: ShotCommands;
  subjectCommands: SubjectCommands;
  versionCommands: VersionCommands;
  setPanel: (panel: PanelName) => void;
  selectLayer: (layerId: string | null) => void;
  setDrawing: (drawing: Drawing | null) => void;
  /** Takes new inputs. */
  give: (inputs: DeskInputs) => void;
}

type DeskParts = ReturnType<ReturnType<typeof partsOf>>;
export type DeskModel = DeskGiven & DeskParts & DeskActions;
export type DeskStore = StoreApi<DeskModel>;

/** What the parts of the model need of its store. */
export interface DeskPort {
  get: () => DeskModel;
  put: (choices: Partial<DeskChoices>) => void;
}

/** Derived values and commands, by name; each keeps its identity while nothing of it changes. */
const partsOf = (port: DeskPort) =>
  createStructuredSelector(
    {
      ...windowFacts(),
      selection: shotSelection(port),
      selectedKeys: selectedKeys(port),
      keyCommands: keyCommands(port),
      rangeCommands: rangeCommands(port),
      captionCommands: captionCommands(port),
      checks: checks(port),
      reshape: reshape(port),
      look: resultLook(port),
      layerCommands: layerCommands(port),
    },
    deskSelector,
  );

/** A desk's model with nothing selected. */
export function createDesk(inputs: DeskInputs): DeskStore {
  return createStore<DeskModel>()((set, get) => {
    const change = (to: Partial<DeskGiven>) =>
      set((before) => {
        const given = { ...before, ...to };
        return { ...given, ...parts(given) };
      });
    const port: DeskPort = { get, put: change };
    const parts = partsOf(port);
    const actions: DeskActions = {
      shotCommands: shotCommands(port),
      subjectCommands: subjectCommands(port),
      versionCommands: versionCommands(port),
      setPanel: (panel) => change({ panel }),
      selectLayer: (layerId) => change({ layerId }),
      setDrawing: (drawing) => change({ drawing }),
      give: change,
    };
    const given = { ...inputs, ...FIRST_CHOICES };
    return { ...given, ...parts(given), ...actions };
  });
}
