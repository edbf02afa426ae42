import { Redo2, Undo2 } from "lucide-react";
import { toast } from "sonner";
import { IconButton } from "~/components/common/button";
import { Wordmark } from "~/components/common/wordmark";
import { CutsDialog } from "../dialogs/cuts-dialog";
import type { DeskFilm, DeskPerson, DeskShot, DeskVersion } from "../state/desk-types";
import { ExportDialog, type ExportView } from "../dialogs/export-dialog";
import { FilmDialog, type FilmFacts } from "../dialogs/film-dialog";
import { PeopleDialog } from "../dialogs/people-dialog";
import type { Player } from "../picture/player";
import type { Edits } from "../state/use-edits";
import type { SubjectEdits } from "../state/use-subject-edits";
import { VersionBar } from "./version-bar";
import type { LightCopy } from "../picture/piece-stream";

/** A film on the desk, with all that concerns it as a whole. */
export interface FilmOnDesk {
  film: DeskFilm;
  facts: FilmFacts;
  /** What is played. */
  source: LightCopy;
  versions: DeskVersion[];
  version: DeskVersion;
  shots: DeskShot[];
  people: DeskPerson[];
  /** How readily a cut is seen, 0 to 100; null while the film is still looked through. */
  sensitivity: number | null;
  exports: ExportView[];
  history: { undo: string | null; redo: string | null };
  edits: Edits;
  /** Why nothing can be exported yet. */
  blocked: string | null;
}

interface DeskHeaderProps extends FilmOnDesk {
  player: Player | null;
  subjectEdits: SubjectEdits;
}

/** What concerns the film as a whole: its versions, people and cuts, the history of changes, export. */
export function DeskHeader(props: DeskHeaderProps) {
  const { film, player, versions, shots, history, edits, subjectEdits } = props;
  const addVersion = (added: DeskVersion) => {
    if (versions.some((other) => other.width === added.width && other.height === added.height)) {
      toast(`There is a version of ${added.width} × ${added.height} already.`);
      return;
    }
    edits.send({ type: "add-version", version: added });
  };
  const steps = [
    { name: "Undo", change: history.undo, shortcut: "Ctrl Z", onStep: edits.undo, Icon: Undo2 },
    { name: "Redo", change: history.redo, shortcut: "Ctrl Shift Z", onStep: edits.redo, Icon: Redo2 },
  ];
  return (
    <header className="flex items-center gap-4 border-b border-line bg-panel px-4 py-2">
      <Wordmark />
      <FilmDialog film={film} facts={props.facts} />
      <VersionBar versions={versions} active={props.version} onAdd={addVersion} />
      <div className="grow" />
      <PeopleDialog
        people={props.people}
        shots={shots}
        source={props.source}
        picture={film.picture}
        rate={film.rate}
        onChange={subjectEdits.changePerson}
        onFollow={subjectEdits.followEverywhere}
      />
      <CutsDialog
        filmId={film.id}
        shots={shots.length}
        sensitivity={props.sensitivity}
        onSensitivity={(value) => edits.send({ type: "set-sensitivity", sensitivity: value })}
        onUse={(transitions) => edits.send({ type: "set-transitions", transitions })}
        onSeek={(frame) => player?.seek(frame)}
      />
      {steps.map(({ name, change, shortcut, onStep, Icon }) => (
        <IconButton
          key={name}
          label={change ? `${name}: ${change}` : `Nothing to ${name.toLowerCase()}`}
          shortcut={shortcut}
          disabled={!change}
          onClick={onStep}
        >
          <Icon className="size-4" aria-hidden />
        </IconButton>
      ))}
      <ExportDialog filmId={film.id} versions={versions} exports={props.exports} blocked={props.blocked} />
    </header>
  );
}
