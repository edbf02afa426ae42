import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { aspectRatio, clampWindow, type CropWindow } from "~/core/geometry/crop-window";
import { joinRanges, withoutRanges } from "~/core/time/ranges";
import { JobStatus } from "~/components/library/job-status";
import type { FilmStatus } from "~/core/film-status";
import type { History } from "~/core/edits/answer";
import type { FilmState, VersionState } from "~/core/version/film-state";
import type { ExportPlaces } from "~/components/exports/output-fields";
import { DeskHeader } from "./header/desk-header";
import { FirstSteps } from "./help/first-steps";
import { Inspector } from "./inspector/inspector";
import type { FilmFacts } from "./dialogs/film-dialog";
import { CheckView } from "./checks/check-view";
import { useChecks } from "./checks/use-checks";
import { useCaptionEdits } from "./captions/use-caption-edits";
import { useSpeech } from "./captions/use-speech";
import { DeskPanels } from "./desk-panels";
import { PictureAndLanes } from "./picture/picture-and-lanes";
import { usePictureLook } from "./picture/picture-look";
import { Steering } from "./picture/steering";
import { useReshape } from "./reshape/use-reshape";
import { areaAt, freeAxes, windowAspect, windowOfShots } from "./picture/desk-windows";
import type { Drawing } from "./picture/drawing";
import { useLatest } from "../common/use-latest";
import type { Player } from "./picture/player";
import { useLightCopy, usePieceStream } from "./picture/use-piece-stream";
import { usePlayer } from "./picture/use-player";
import { Result } from "./result/result";
import { useResultLook } from "./result/use-result-look";
import { useSelectedKeys } from "./keys/use-selected-keys";
import { ShotList } from "./shots/shot-list";
import { type DeskContent, DeskContext, type PanelName } from "./state/desk-context";
import { type DeskFilm, shotAt } from "./state/desk-types";
import type { Edits } from "./state/use-edits";
import { useKeyEdits } from "./state/use-key-edits";
import { useSelection } from "./state/use-selection";
import { useShortcuts } from "./state/use-shortcuts";
import { useShotEdits } from "./state/use-shot-edits";
import { useShownAt } from "./state/use-shown-at";
import { type FilmFindings, useShots } from "./state/use-shots";
import { useSubjectEdits } from "./state/use-subject-edits";
import { useTrimEdits } from "./state/use-trim-edits";
import { useVersionEdits } from "./state/use-version-edits";
import { useWantedFrame } from "./state/use-wanted-frame";
import { DeskTools } from "./picture/desk-tools";
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
