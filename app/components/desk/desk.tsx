import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { aspectRatio, clampWindow, type CropWindow } from "~/core/geometry/crop-window";
import { joinRanges, withoutRanges } from "~/core/time/ranges";
import { JobStatus } from "~/components/library/job-status";
import type { FilmStatus } from "~/core/film-status";
import type { History } from "~/core/edits/answer";
import type { FilmState, VersionState } from "~/core/version/film-state";
import type { ExportPlaces } from "~/components/exports/output-fields";
import { DeskHeader } from "./views/header/desk-header";
import { FirstSteps } from "./views/help/first-steps";
import { Inspector } from "./views/inspector/inspector";
import type { FilmFacts } from "./views/dialogs/film-dialog";
import { CheckView } from "./views/checks/check-view";
import { useChecks } from "./model/checks";
import { useCaptionEdits } from "./model/caption-commands";
import { useSpeech } from "./hooks/use-speech";
import { DeskPanels } from "./views/desk-panels";
import { PictureAndLanes } from "./views/picture/picture-and-lanes";
import { usePictureLook } from "./model/picture-look";
import { Steering } from "./model/steering";
import { useReshape } from "./model/reshape";
import { areaAt, freeAxes, windowAspect, windowOfShots } from "./model/windows";
import type { Drawing } from "./model/drawing";
import { useLatest } from "../common/use-latest";
import type { Player } from "./model/player";
import { useLightCopy, usePieceStream } from "./hooks/use-piece-stream";
import { usePlayer } from "./hooks/use-player";
import { Result } from "./views/result/result";
import { useResultLook } from "./hooks/use-result-look";
import { useSelectedKeys } from "./model/selected-keys";
import { ShotList } from "./views/shots/shot-list";
import { type DeskContent, DeskContext, type PanelName } from "./hooks/desk-context";
import { type DeskFilm, shotAt } from "./model/desk-types";
import type { Edits } from "./hooks/use-edits";
import { useKeyEdits } from "./model/key-commands";
import { useSelection } from "./model/shot-selection";
import { useShortcuts } from "./hooks/use-shortcuts";
import { useShotEdits } from "./model/shot-commands";
import { useShownAt } from "./hooks/use-shown-at";
import { type FilmFindings, useShots } from "./hooks/use-shots";
import { useSubjectEdits } from "./model/subject-commands";
import { useTrimEdits } from "./model/ranges";
import { useVersionEdits } from "./model/version-commands";
import { useWantedFrame } from "./hooks/use-wanted-frame";
import { DeskTools } from "./views/picture/desk-tools";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.desk;

interface DeskProps {
  film: DeskFilm & { audio: { index: number } | null; fingerprint: string | null };
  facts: FilmFacts;
  state: FilmState;
  history: History;
  revision: number;
  isBusy: () => boolean;
  edits: Edits;
  version: VersionState;
  findings: FilmFindings;
  status: FilmStatus;
  out: ExportPlaces;
}

/** The desk of one film: shots, picture and lane, result, and what can be set. */
export function Desk(props: DeskProps) {
  const { film, facts, state, history, revision, isBusy, edits, version, findings, status, out } = props;
  const [video, setVideo] = useState<HTMLVideoElement | null>(null);
  const [pictureLook, setPictureLook] = usePictureLook();
  const [drawing, setDrawing] = useState<Drawing | null>(null);
  const [pane, selectPane] = useState(0);
  const [panel, setPanel] = useState<PanelName>("shot");
  const [layerId, chooseLayer] = useState<string | null>(null);
  const timecode = useRef<HTMLInputElement>(null);
  // Until its clips are brought together, there is nothing to be made light.
  const isPrepared = !status.jobs.some(({ kind, state }) => kind === "join" && state !== "done");
  const source = useLightCopy(film, isPrepared);
  const player = usePlayer(video, film.rate, film.frames);
  const notice = usePieceStream(video, source);
  const playing = useRef<Player | null>(null);
  useEffect(() => void (playing.current = player), [player]);
  const playhead = useCallback(() => playing.current?.getTarget() ?? 0, []);

  const { shots, client } = useShots({ film, state, version, findings, playhead, pane });
  const aspect = aspectRatio(version);
  const { picture } = film;
  const selection = useSelection(shots);
  const framedIn = useLatest({ shots, version });
  const [steering] = useState(
    () =>
      new Steering((frame, window) => {
        const { shots: all, version: of } = framedIn.current;
        return clampWindow(window, areaAt(all, frame, picture), windowAspect(shotAt(all, frame), picture, of));
      }),
  );
  const selectedKeys = useSelectedKeys(edits, shots, version, picture);
  const reshape = useReshape(edits, version, picture, film.rate);
  const keyEdits = useKeyEdits(edits, shots, version, state.versions, picture);
  const shotEdits = useShotEdits(edits, version.id, shots, player);
  const subjectEdits = useSubjectEdits(edits, shots, shotEdits);
  const versionEdits = useVersionEdits(edits);
  const { kept, layered, shownAt, captionPlaces } = useShownAt(film, state, version, shots, steering.at);
  const analysed = useMemo(() => joinRanges(findings.analysed), [findings.analysed]);
  const missing = useMemo(
    () => (state.film.analysed ? [] : withoutRanges([{ start: 0, end: film.frames }], analysed)),
    [state.film.analysed, film.frames, analysed],
  );
  useWantedFrame(film.id, player, missing, version.trim);
  const trimEdits = useTrimEdits(edits, version.id, kept, player);
  useEffect(() => player?.setKept(kept), [player, kept]);
  const windowAt = useCallback(
    (frame: number): CropWindow => windowOfShots(shots, frame, picture, version, steering.at),
    [shots, picture, version, steering],
  );
  const speech = useSpeech(film.id, status.findings);
  const captionEdits = useCaptionEdits({ film, state, version, shots, kept, speech, player, edits });
  const look = useResultLook();
  const checks = useChecks({ shots, version, player, versionEdits, selectPane, showShot: () => setPanel("shot") });
  const free = useMemo(() => freeAxes(shots, picture, version), [shots, picture, version]);
  const waitFor = useCallback((ids: string[]) => client?.waitFor(ids), [client]);

  // The compiler keeps it as it is while nothing in it is another.
  const content: DeskContent = {
    ...{ film, facts, source, state, history, revision, isBusy, version, aspect, shots, kept, findings, analysed },
    ...{ exports: status.exports, out, look },
    ...{ player, video, selection, edits, keyEdits, shotEdits, subjectEdits, versionEdits, trimEdits },
    ...{
      windowAt,
      shownAt,
      layered,
      captionPlaces,
      captionEdits,
      checks,
      speech,
      pane,
      selectPane,
      panel,
      setPanel,
      layerId,
      chooseLayer,
      free,
    },
    ...{ pictureLook, setPictureLook, drawing, setDrawing, steering, reshape, selectedKeys, waitFor },
  };
  useShortcuts(content, timecode);

  return (
    <DeskContext value={content}>
      <FirstSteps />
      <div className="grid h-[calc(100vh-var(--notice-height,0px))] grid-rows-[auto_1fr] overflow-hidden">
        <DeskHeader />
        <main className="relative min-h-0">
          {checks.isOpen && <CheckView />}
          <div className="h-full min-h-0" inert={checks.isOpen}>
            <DeskPanels
              shots={
                <section aria-label={t.shotsOfTheFilm} className="flex h-full flex-col bg-panel">
                  <div className="px-3 py-2 empty:hidden">
                    <JobStatus jobs={status.jobs} />
                  </div>
                  {!state.film.analysed && <p className="px-3 pb-2 text-xs text-soft">{t.youCanWorkOnAny}</p>}
                  <ShotList />
                </section>
              }
              picture={
                <section
                  aria-label={t.pictureAndLane}
                  className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)_auto]"
                >
                  <PictureAndLanes videoRef={setVideo} notice={notice} />
                  <DeskTools timecodeRef={timecode} />
                </section>
              }
              result={<Result />}
              settings={
                <section aria-label={t.settings} className="h-full overflow-y-auto bg-panel p-4">
                  <Inspector />
                </section>
              }
            />
          </div>
        </main>
      </div>
    </DeskContext>
  );
}
