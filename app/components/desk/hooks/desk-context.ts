import { createContext, useContext } from "react";
import type { FilmFacts } from "../views/dialogs/film-dialog";
import type { ExportPlaces } from "~/components/exports/output-fields";
import type { Checks } from "../model/checks";
import type { Drawing } from "../model/drawing";
import type { SelectedKeys } from "../model/selected-keys";
import type { PictureLook } from "../model/picture-look";
import type { Steering } from "../model/steering";
import type { Reshape } from "../model/reshape";
import type { LightCopy } from "../model/piece-stream";
import type { Player } from "../model/player";
import type { ShownAt } from "~/core/composition/composition";
import type { CropWindow } from "~/core/geometry/crop-window";
import type { ExportView } from "~/core/film-status";
import type { History } from "~/core/edits/answer";
import type { FrameRange } from "~/core/time/rate";
import type { FilmState } from "~/core/version/film-state";
import type { CaptionEdits } from "../model/caption-commands";
import type { DeskFilm, DeskShot, DeskVersion } from "../model/desk-types";
import type { ResultLook } from "./use-result-look";
import type { Edits } from "./use-edits";
import type { KeyEdits } from "../model/key-commands";
import type { Selection } from "../model/shot-selection";
import type { FilmFindings } from "./use-shots";
import type { ShotEdits } from "../model/shot-commands";
import type { SubjectEdits } from "../model/subject-commands";
import type { TrimEdits } from "../model/ranges";
import type { VersionEdits } from "../model/version-commands";

/** What the panel below the result can be about. */
export type PanelName = "shot" | "keys" | "layers" | "captions";

/** A film on the desk, as it is in one of its versions, and all that can be done to it. */
export interface DeskContent {
  film: DeskFilm;
  facts: FilmFacts;
  /** What is played. */
  source: LightCopy;
  state: FilmState;
  history: History;
  /** The newest revision of the film that the desk knows of. */
  revision: number;
  /** Whether the server has not answered all that was sent. */
  isBusy: () => boolean;
  version: DeskVersion;
  /** Width over height of the version. */
  aspect: number;
  shots: DeskShot[];
  /** The ranges of the film that the version shows. */
  kept: readonly FrameRange[];
  findings: FilmFindings;
  /** The ranges of the film that have been analysed. */
  analysed: readonly FrameRange[];
  exports: ExportView[];
  player: Player | null;
  video: HTMLVideoElement | null;
  selection: Selection;
  edits: Edits;
  keyEdits: KeyEdits;
  shotEdits: ShotEdits;
  subjectEdits: SubjectEdits;
  versionEdits: VersionEdits;
  trimEdits: TrimEdits;
  /** The window at a frame, for whoever moves it. */
  windowAt: (frame: number) => CropWindow;
  /** What the version shows at a frame. */
  shownAt: ShownAt;
  /** How far down the safe area each caption of the version stands, by its id. */
  captionPlaces: ReadonlyMap<string, number>;
  /** What is shown with the version's layers and captions. */
  layered: (shown: ShownAt) => ShownAt;
  /** Which pane is chosen in shots that have it, from 0. */
  pane: number;
  selectPane: (pane: number) => void;
  /** What the panel below the result is about. */
  panel: PanelName;
  setPanel: (panel: PanelName) => void;
  /** The layer that is chosen; null for none. */
  layerId: string | null;
  chooseLayer: (layerId: string | null) => void;
  /** The axes on which the window can move anywhere in the film. */
  free: { x: boolean; y: boolean };
  /** What can be done to the film's captions. */
  captionEdits: CaptionEdits;
  /** The ranges of the film in which somebody speaks. */
  speech: readonly FrameRange[];
  /** What exports of the film can be, and where they can go. */
  out: ExportPlaces;
  /** What is worth a flag in the version. */
  checks: Checks;
  /** How the result is looked at. */
  look: ResultLook;
  /** How the picture is looked at. */
  pictureLook: PictureLook;
  setPictureLook: (change: Partial<PictureLook>) => void;
  /** What a box is being drawn around; null while none is. */
  drawing: Drawing | null;
  setDrawing: (drawing: Drawing | null) => void;
  selectedKeys: SelectedKeys;
  /** The window while it is led by hand. */
  steering: Steering;
  /** A range of the path that is being reshaped. */
  reshape: Reshape;
  /** Says which shots are looked at, so that they are framed first. */
  waitFor: (shotIds: string[]) => void;
}

export const DeskContext = createContext<DeskContent | null>(null);

/** What the desk shows. To be called below the desk. */
export function useDesk(): DeskContent {
  const content = useContext(DeskContext);
  if (!content) throw new Error("this belongs on the desk");
  return content;
}
