import { Eye } from "lucide-react";
import { Button, Hint } from "~/components/common/button";
import type { Box } from "~/core/geometry/box";
import type { CropWindow } from "~/core/geometry/crop-window";
import type { FramingChange } from "~/core/path/framing-settings";
import type { Easing } from "~/core/path/easing";
import { MANNER_TEXT } from "~/core/path/manner";
import type { HandKey } from "~/core/path/solve-version";
import { type DeskFilm, type DeskShot, shotAt } from "../state/desk-types";
import { ActiveArea } from "./active-area";
import { FramingControls } from "./framing-controls";
import { ShotBegin } from "./shot-begin";
import { ShotName } from "../shots/shot-name";
import { SubjectChoice } from "./subject-choice";
import { TrackTools } from "./track-tools";
import type { SubjectEdits } from "../state/use-subject-edits";
import { WindowHere } from "./window-here";
import type { Player } from "../picture/player";
import { useFrame } from "../picture/use-player";
import type { LightCopy } from "../picture/piece-stream";

interface InspectorProps {
  film: DeskFilm;
  /** What the desk plays. */
  source: LightCopy;
  player: Player | null;
  shots: DeskShot[];
  windowAt: (frame: number) => CropWindow;
  /** The axes on which the window can move. */
  free: { x: boolean; y: boolean };
  /** Height of the largest window of a shot, in pixels of the picture. */
  largestIn: (shot: DeskShot) => number;
  /** How far a shot's zoom may go in before the picture is enlarged more than so many times. */
  bears: (shot: DeskShot, enlargement: number) => number;
  subjectEdits: SubjectEdits;
  onSubject: (shot: DeskShot, subject: string) => void;
  onFraming: (shot: DeskShot, change: FramingChange) => void;
  /** Gives every shot the zoom of one. */
  onZoomEverywhere: (shot: DeskShot) => void;
  onRename: (shot: DeskShot, name: string | null) => void;
  onMoveCut: (shot: DeskShot, frame: number) => void;
  onCarry: (shot: DeskShot, carry: boolean) => void;
  /** Begins to draw a box around what is to be kept inside. */
  onProtect: () => void;
  onUnprotect: (shot: DeskShot) => void;
  /** Begins to draw a box around the picture without its bars. */
  onDrawActive: () => void;
  /** Says what of the picture is not bars in some shots; null where there are none. */
  onActive: (shots: readonly DeskShot[], active: Box | null) => void;
  onPlace: (frame: number, window: CropWindow) => void;
  onRelease: (frame: number) => void;
  onEase: (key: HandKey, easing: Easing | null) => void;
  /** Puts a hand key into the other versions as well; null where there is none. */
  onCarryKey: ((shot: DeskShot, key: HandKey) => void) | null;
}

/** What can be set for the shot under the playhead, and for the window at this frame. */
export function Inspector(props: InspectorProps) {
  const frame = useFrame(props.player);
  const shot = shotAt(props.shots, frame);
  if (!shot) return null;
  const before = props.shots[shot.number - 2];
  const zoom = JSON.stringify(shot.settings.zoom);
  const differs = props.shots.some((other) => JSON.stringify(other.settings.zoom) !== zoom);
  return (
    <div className="flex flex-col gap-5">
      <section aria-label={`Shot ${shot.number}`} className="flex flex-col gap-3">
        <ShotName key={shot.id} number={shot.number} name={shot.name} onRename={(name) => props.onRename(shot, name)} />
        <SecondLooks shot={shot} onSeek={(at) => props.player?.seek(at)} />
        <SubjectChoice shot={shot} onChange={(subject) => props.onSubject(shot, subject)} />
        <TrackTools
          shot={shot}
          frame={frame}
          onEdit={props.subjectEdits.editTrack}
          onUnmark={(at) => props.subjectEdits.unmark(shot, at)}
          onSeek={(at) => props.player?.seek(at)}
        />
        <FramingControls
          settings={shot.settings}
          bears={(enlargement) => props.bears(shot, enlargement)}
          chosen={shot.framed?.mannerReason && `${MANNER_TEXT[shot.framed.manner].name}: ${shot.framed.mannerReason}`}
          onChange={(change) => props.onFraming(shot, change)}
        />
        <div className="flex items-center justify-between gap-2">
          <span className="text-xs text-soft">{shot.protect ? "A part is kept" : "Title, logo"}</span>
          {shot.protect ? (
            <Button className="shrink-0" onClick={() => props.onUnprotect(shot)}>
              Protect it no more
            </Button>
          ) : (
            <Hint text="Draw a box around a part of the picture that the window shall keep inside where it can">
              <Button onClick={props.onProtect}>Protect a part</Button>
            </Hint>
          )}
        </div>
        <ActiveArea
          shot={shot}
          shots={props.shots}
          picture={props.film.picture}
          onDraw={props.onDrawActive}
          onChange={props.onActive}
        />
        {differs && <Button onClick={() => props.onZoomEverywhere(shot)}>Use this zoom in all shots</Button>}
      </section>
      <WindowHere {...props} shot={shot} frame={frame} largest={props.largestIn(shot)} />
      {before && (
        <ShotBegin
          shot={shot}
          before={before}
          source={props.source}
          picture={props.film.picture}
          clock={props.film.clock}
          onMove={(start) => props.onMoveCut(shot, start)}
          onCarry={(carry) => props.onCarry(shot, carry)}
        />
      )}
    </div>
  );
}

/** Places of the shot that deserve a look, each a way to go there. */
function SecondLooks({ shot, onSeek }: { shot: DeskShot; onSeek: (frame: number) => void }) {
  if (shot.looks.length === 0) return null;
  return (
    <ul aria-label="Worth a second look" className="flex flex-col gap-1">
      {shot.looks.map(({ kind, frame, text }) => (
        <li key={kind}>
          <button
            type="button"
            onClick={() => onSeek(frame)}
            className="flex w-full items-start gap-2 rounded-md border border-line px-2 py-1 text-left text-xs hover:bg-well"
          >
            <Eye className="mt-px size-3.5 shrink-0 text-warn" aria-hidden />
            {text}
          </button>
        </li>
      ))}
    </ul>
  );
}
