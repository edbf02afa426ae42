import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { clampWindow } from "~/core/geometry/crop-window";
import { withoutRanges } from "~/core/time/ranges";
import { JobStatus } from "~/components/library/job-status";
import type { FilmStatus } from "~/core/film/film-status";
import { deskTexts } from "~/texts/desk";
import { tell } from "./hooks/tell";
import { DeskContext, useDesk } from "./hooks/use-desk";
import { useLightCopy, usePieceStream } from "./hooks/use-piece-stream";
import { usePictureLook } from "./hooks/use-picture-look";
import { useVideo } from "./hooks/use-player";
import { useShortcuts } from "./hooks/use-shortcuts";
import { useShots } from "./hooks/use-shots";
import { useShownAt } from "./hooks/use-shown-at";
import { useSpeech } from "./hooks/use-speech";
import { useStoredLook } from "./hooks/use-stored-look";
import { useWantedFrame } from "./hooks/use-wanted-frame";
import { useLatest } from "../common/use-latest";
import type { DeskInputs } from "./model/desk-inputs";
import { createDesk } from "./model/desk-model";
import { type DeskFilm, shotAt } from "./model/desk-types";
import { Steering } from "./model/steering";
import { areaAt, windowAspect } from "./model/windows";
import { CheckView } from "./views/checks/check-view";
import { DeskPanels } from "./views/desk-panels";
import { DeskHeader } from "./views/desk-header";
import { FirstSteps } from "./views/help/first-steps";
import { Inspector } from "./views/inspector";
import { DeskTools } from "./views/desk-tools";
import { PictureAndLanes } from "./views/picture-and-lanes";
import { Result } from "./views/result";
import { ShotList } from "./views/shots/shot-list";

const t = deskTexts.desk;

type Given = "facts" | "state" | "history" | "revision" | "isBusy" | "edits" | "version" | "findings" | "out";

interface DeskProps extends Pick<DeskInputs, Given> {
  film: DeskFilm & { audio: { index: number } | null; fingerprint: string | null };
  status: FilmStatus;
}

/** The desk of one film: feeds its model from the server, the player and the worker, and shows it. */
export function Desk({ status, ...given }: DeskProps) {
  const { film, state, version, findings } = given;
  const [pictureLook, setPictureLook] = usePictureLook();
  const storedLook = useStoredLook();
  const [pane, selectPane] = useState(0);
  const timecode = useRef<HTMLInputElement>(null);
  // Until its clips are joined, there is nothing to make a proxy of.
  const isPrepared = !status.jobs.some(({ kind, state }) => kind === "join" && state !== "done");
  const source = useLightCopy(film, isPrepared);
  const { video, player, attach } = useVideo(film.rate, film.frames);
  const notice = usePieceStream(video, source);
  const playing = useLatest(player);
  const playhead = () => playing.current?.getTarget() ?? 0;

  const { shots, waitFor } = useShots({ film, state, version, findings, playhead, pane });
  const { picture } = film;
  const framedIn = useLatest({ shots, version });
  const [steering] = useState(
    () =>
      new Steering((frame, window) => {
        const { shots: all, version: size } = framedIn.current;
        return clampWindow(window, areaAt(all, frame, picture), windowAspect(shotAt(all, frame), picture, size));
      }),
  );
  const shown = useShownAt(film, state, version, shots, steering.at);
  const { kept } = shown;
  useEffect(() => player?.setKept(kept), [player, kept]);
  const speech = useSpeech(film.id, status.findings);
  const [, setSearch] = useSearchParams();
  const showVersion = (id: string) => setSearch({ version: id }, { replace: true });

  const inputs: DeskInputs = {
    ...given,
    ...shown,
    source,
    shots,
    speech,
    exports: status.exports,
    player,
    video,
    pane,
    selectPane,
    storedLook,
    pictureLook,
    setPictureLook,
    steering,
    waitFor,
    showVersion,
    tell,
  };
  const [store] = useState(() => createDesk(inputs));
  useLayoutEffect(() => store.getState().give(inputs));
  useShortcuts(store, timecode);
  const missing = state.film.analysed ? [] : withoutRanges([{ start: 0, end: film.frames }], findings.analysed);
  useWantedFrame(film.id, player, missing, version.trim);

  return (
    <DeskContext value={store}>
      <FirstSteps />
      <div className="grid h-[calc(100vh-var(--notice-height,0px))] grid-rows-[auto_1fr] overflow-hidden">
        <DeskHeader />
        <main className="relative min-h-0">
          <UnderFlags>
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
                  <PictureAndLanes videoRef={attach} notice={notice} />
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
          </UnderFlags>
        </main>
      </div>
    </DeskContext>
  );
}

/** The desk itself, under the page of flags while that is open. */
function UnderFlags({ children }: { children: React.ReactNode }) {
  const { isOpen } = useDesk("checks").checks;
  return (
    <>
      {isOpen && <CheckView />}
      <div className="h-full min-h-0" inert={isOpen}>
        {children}
      </div>
    </>
  );
}
