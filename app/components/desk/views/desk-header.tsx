import { Redo2, Undo2 } from "lucide-react";
import { IconButton } from "~/components/common/button";
import { Wordmark } from "~/components/common/wordmark";
import { ChecksButton } from "./checks/checks-button";
import { CutsDialog } from "./dialogs/cuts-dialog";
import { ShortcutsDialog } from "./help/shortcuts-dialog";
import { useDesk } from "../hooks/use-desk";
import { ExportDialog } from "./dialogs/export-dialog";
import { FilmDialog } from "./dialogs/film-dialog";
import { CheckpointsPanel } from "./checkpoints/checkpoints-panel";
import { HistoryPanel } from "./history/history-panel";
import { PeopleDialog } from "./dialogs/people-dialog";
import { VersionBar } from "./version-bar";
import { useShortcutText } from "../hooks/use-shortcut-keys";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.deskHeader;

/** What concerns the whole film: versions, people and cuts, history, export. */
export function DeskHeader() {
  const keysOf = useShortcutText();
  const { film, facts, source, state, shots, history, edits, player, subjectCommands } = useDesk(
    "film",
    "facts",
    "source",
    "state",
    "shots",
    "history",
    "edits",
    "player",
    "subjectCommands",
  );
  const { people } = state;
  const { analysed } = state.film;
  const steps = [
    { name: t.undo, change: history.undo, shortcut: keysOf("undo"), onStep: edits.undo, Icon: Undo2 },
    { name: t.redo, change: history.redo, shortcut: keysOf("redo"), onStep: edits.redo, Icon: Redo2 },
  ];
  return (
    <header className="flex items-center gap-4 border-b border-line bg-panel px-4 py-2">
      <Wordmark />
      <FilmDialog film={film} facts={facts} />
      <VersionBar />
      <div className="grow" />
      <PeopleDialog
        people={people}
        shots={shots}
        source={source}
        picture={film.picture}
        rate={film.rate}
        onChange={subjectCommands.changePerson}
        onFollow={subjectCommands.followEverywhere}
        attention={state.attention}
        onAttention={(attention) => edits.send({ type: "set-attention", attention })}
      />
      <CutsDialog
        filmId={film.id}
        shots={shots.length}
        sensitivity={analysed ? state.sensitivity : null}
        onSensitivity={(value) => edits.send({ type: "set-sensitivity", sensitivity: value })}
        onUse={(transitions) => edits.send({ type: "set-transitions", transitions })}
        onSeek={(frame) => player?.seek(frame)}
      />
      {steps.map(({ name, change, shortcut, onStep, Icon }) => (
        <IconButton
          key={name}
          label={change ? `${name}: ${change}` : t.nothingTo(name.toLowerCase())}
          shortcut={shortcut}
          disabled={!change}
          onClick={onStep}
        >
          <Icon className="size-4" aria-hidden />
        </IconButton>
      ))}
      <ChecksButton />
      <HistoryPanel />
      <CheckpointsPanel />
      <ShortcutsDialog />
      <ExportDialog />
    </header>
  );
}
