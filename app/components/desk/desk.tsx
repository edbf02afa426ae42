import { SquareDashedMousePointer, Users } from "lucide-react";
import { useCallback, useMemo, useRef, useState } from "react";
import { aspectRatio, type CropWindow, largestWindowHeight } from "~/core/geometry/crop-window";
import { mostZoom } from "~/core/path/zoom-goals";
import { framesPerSecond } from "~/core/time/rate";
import { IconButton } from "~/components/common/button";
import { JobStatus, type JobView } from "~/components/library/job-status";
import { wholePixels } from "./inspector/active-area";
import { BulkSettings } from "./inspector/bulk-settings";
import { DeskHeader, type FilmOnDesk } from "./header/desk-header";
import { type DeskShot, shotAt } from "./state/desk-types";
import { freeAxes, windowOfShots } from "./picture/desk-windows";
import { Inspector } from "./inspector/inspector";
import type { Drawing } from "./picture/picture";
import type { Player } from "./picture/player";
import { Result } from "./result/result";
import { ShotList } from "./shots/shot-list";
import { ShotTools } from "./shots/shot-tools";
import { Table } from "./picture/table";
import { Transport } from "./picture/transport";
import { useKeyEdits } from "./state/use-key-edits";
import { usePieceStream } from "./picture/use-piece-stream";
import { useFrame, usePlayer } from "./picture/use-player";
import { useSelection } from "./state/use-selection";
import { useShortcuts } from "./state/use-shortcuts";
import { type ShotEdits, useShotEdits } from "./state/use-shot-edits";
import { useSubjectEdits } from "./state/use-subject-edits";

interface DeskProps extends FilmOnDesk {
  /** What is still being done to the film. */
  jobs: JobView[];
}

/** The desk of one film: shots, picture and lane, result, and what can be set. */
export function Desk(props: DeskProps) {
  const { film, source, versions, version, shots, jobs, edits } = props;
  const [video, setVideo] = useState<HTMLVideoElement | null>(null);
  const [showSubjects, setShowSubjects] = useState(false);
  const [drawing, setDrawing] = useState<Drawing | null>(null);
  const timecode = useRef<HTMLInputElement>(null);
  const player = usePlayer(video, film.rate, film.frames);
  const notice = usePieceStream(video, source);
  const aspect = aspectRatio(version);
  const { picture } = film;
  const selection = useSelection(shots);
  const shotEdits = useShotEdits(edits, version.id, shots, player);
  const subjectEdits = useSubjectEdits(edits, shots, shotEdits);

  const windowAt = useCallback(
    (frame: number): CropWindow => windowOfShots(shots, frame, picture, aspect),
    [shots, picture, aspect],
  );
  const bears = (shot: DeskShot, enlargement: number) => mostZoom(shot.active ?? picture, version, enlargement);
  const free = useMemo(() => freeAxes(shots, picture, aspect), [shots, picture, aspect]);

  const { place, preview, release, ease, carry } = useKeyEdits(edits, shots, version, versions, picture);
  const follow = (shot: DeskShot, subject: string) => shotEdits.change([shot], { subject });

  const toggleMarking = () => setDrawing((now) => (now === "mark" ? null : "mark"));

  useShortcuts({
    player,
    shots,
    timecode,
    framesPerSecond: framesPerSecond(film.rate),
    onUndo: edits.undo,
    onRedo: edits.redo,
    onPin: () => player && place(player.getFrame(), windowAt(player.getFrame())),
    onRelease: () => player && release(player.getFrame()),
    onToggleSubjects: () => setShowSubjects((shown) => !shown),
    onToggleMarking: toggleMarking,
    shotEdits,
  });
  const selected = shots.filter(({ id }) => selection.ids.has(id));

  return (
    <div className="grid h-[calc(100vh-var(--notice-height,0px))] grid-rows-[auto_1fr] overflow-hidden">
      <DeskHeader {...props} player={player} subjectEdits={subjectEdits} />
      <div className="grid min-h-0 grid-cols-[13.5rem_minmax(0,1fr)_18rem]">
        <aside className="flex min-h-0 flex-col border-r border-line bg-panel">
          <div className="px-3 py-2 empty:hidden">
            <JobStatus jobs={jobs} />
          </div>
          {shots.length === 0 && (
            <p className="px-3 py-2 text-xs text-soft">
              Shots appear here as they are found. Until then you can watch the film.
            </p>
          )}
          <ShotList
            player={player}
            shots={shots}
            selection={selection}
            rate={film.rate}
            aspect={aspect}
            picture={picture}
            source={source}
          />
        </aside>
        <main className="grid min-h-0 grid-rows-[1fr_auto]">
          <Table
            film={film}
            player={player}
            videoRef={setVideo}
            notice={notice}
            shots={shots}
            aspect={aspect}
            free={free}
            windowAt={windowAt}
            showSubjects={showSubjects}
            onPlace={place}
            onPreview={preview}
            onFollow={(shot, trackId) => follow(shot, `track:${trackId}`)}
            drawing={drawing}
            onDrawn={(frame, box) => {
              setDrawing(null);
              const shot = shotAt(shots, frame);
              if (box && drawing === "mark") subjectEdits.mark(frame, box);
              if (box && shot && drawing === "protect") shotEdits.change([shot], { protect: box });
              if (box && shot && drawing === "active") shotEdits.change([shot], { active: wholePixels(box) });
            }}
          />
          <div className="flex items-center justify-center gap-3 border-t border-line bg-panel px-3 py-1.5">
            <Transport player={player} shots={shots} clock={film.clock} frames={film.frames} timecodeRef={timecode} />
            <ShotToolsHere player={player} shots={shots} shotEdits={shotEdits} />
            <IconButton
              label="Show who can be followed"
              shortcut="S"
              aria-pressed={showSubjects}
              onClick={() => setShowSubjects((shown) => !shown)}
              className="aria-pressed:bg-accent-wash aria-pressed:text-ink"
            >
              <Users className="size-4" aria-hidden />
            </IconButton>
            <IconButton
              label="Mark what to follow: draw a box around it"
              shortcut="M"
              aria-pressed={drawing === "mark"}
              onClick={toggleMarking}
              className="aria-pressed:bg-accent-wash aria-pressed:text-ink"
            >
              <SquareDashedMousePointer className="size-4" aria-hidden />
            </IconButton>
          </div>
        </main>
        <aside className="grid min-h-0 grid-rows-[minmax(0,1fr)_minmax(0,1fr)] border-l border-line bg-panel">
          <div className="min-h-0 p-4 pb-2">
            <Result player={player} video={video} picture={picture} version={version} windowAt={windowAt} />
          </div>
          <div className="min-h-0 overflow-y-auto border-t border-line p-4">
            {selected.length > 1 ? (
              <BulkSettings
                shots={selected}
                rate={film.rate}
                bears={(enlargement) => Math.min(...selected.map((shot) => bears(shot, enlargement)))}
                onSubject={(subject) => shotEdits.change(selected, { subject })}
                onFraming={(change) => shotEdits.setFraming(selected, change)}
                onExclude={(excluded) => shotEdits.change(selected, { excluded })}
                onJoin={() => shotEdits.join(selected)}
                onClear={selection.clear}
              />
            ) : (
              <Inspector
                film={film}
                source={source}
                player={player}
                shots={shots}
                windowAt={windowAt}
                free={free}
                subjectEdits={subjectEdits}
                onSubject={follow}
                onFraming={(shot, change) => shotEdits.setFraming([shot], change)}
                onZoomEverywhere={({ settings }) => shotEdits.setFraming(shots, { zoom: settings.zoom })}
                largestIn={({ active }) => largestWindowHeight(active ?? picture, aspect)}
                bears={bears}
                onRename={(shot, name) => shotEdits.change([shot], { name })}
                onMoveCut={shotEdits.moveCut}
                onCarry={(shot, carry) => shotEdits.change([shot], { carry })}
                onProtect={() => setDrawing("protect")}
                onUnprotect={(shot) => shotEdits.change([shot], { protect: null })}
                onDrawActive={() => setDrawing("active")}
                onActive={(some, active) => shotEdits.change(some, { active })}
                onPlace={place}
                onRelease={release}
                onEase={ease}
                onCarryKey={versions.length > 1 ? carry : null}
              />
            )}
          </div>
        </aside>
      </div>
    </div>
  );
}

/** The tools of the shot under the playhead; apart, so that the desk is not drawn again with every frame. */
function ShotToolsHere({
  player,
  shots,
  shotEdits,
}: {
  player: Player | null;
  shots: DeskShot[];
  shotEdits: ShotEdits;
}) {
  const frame = useFrame(player);
  const shot = shotAt(shots, frame);
  return (
    <ShotTools
      shot={shot}
      frame={frame}
      last={shot === shots.at(-1)}
      onSplit={shotEdits.splitHere}
      onJoin={shotEdits.joinNext}
      onExclude={shotEdits.excludeHere}
    />
  );
}
