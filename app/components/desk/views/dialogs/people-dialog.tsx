import { cutOut } from "~/core/composition/composition";
import { UserRound } from "lucide-react";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { Button, Hint, IconButton } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { TickBox } from "~/components/common/tick-box";
import { SelectMenu } from "~/components/common/select-menu";
import type { Size } from "~/core/geometry/box";
import { type AttentionSettings, withMust } from "~/core/subjects/attention/attention-settings";
import { letterOf } from "~/core/subjects/choosing/people";
import { type Portrait, portraitOf } from "~/core/subjects/choosing/portrait";
import type { Rate } from "~/core/time/rate";
import type { DeskPerson, DeskShot } from "../../model/desk-types";
import { useStills } from "../../frames/use-stills";
import { AttentionFields } from "../fields/attention-fields";
import { Letter } from "../../../common/letter";
import type { LightCopy } from "../../model/piece-stream";
import { dialogsTexts } from "~/texts/dialogs";

const t = dialogsTexts.peopleDialog;

interface PeopleDialogProps {
  people: readonly DeskPerson[];
  shots: readonly DeskShot[];
  source: LightCopy;
  picture: Size;
  rate: Rate;
  onChange: (person: DeskPerson) => void;
  onFollow: (person: DeskPerson) => void;
  /** How attention switches within the film's shots. */
  attention: AttentionSettings;
  onAttention: (attention: AttentionSettings) => void;
}

const FACE_SIZE = { width: 96, height: 96 };

interface Appearance {
  person: DeskPerson;
  shots: DeskShot[];
  portrait: Portrait | null;
}

/** Everybody who has not been merged into somebody else, with their shots. */
function appearances(people: readonly DeskPerson[], shots: readonly DeskShot[], picture: Size): Appearance[] {
  return people
    .filter(({ mergedInto }) => mergedInto === null)
    .map((person) => {
      const theirs = shots.filter(({ tracks }) => tracks.some(({ who }) => who === person.id));
      const tracks = theirs.flatMap((shot) => shot.tracks.filter(({ who }) => who === person.id));
      return { person, shots: theirs, portrait: portraitOf(tracks, picture) };
    })
    .filter(({ shots: theirs }) => theirs.length > 0);
}

/** Everybody in the film: picture, name, shots, and following them everywhere. */
export function PeopleDialog(props: PeopleDialogProps) {
  const { people, shots, source, picture, onChange, onFollow, attention, onAttention } = props;
  const [open, setOpen] = useState(false);
  const known = open ? appearances(people, shots, picture) : [];
  const wanted = known.flatMap(({ person, portrait }) =>
    portrait ? [{ id: person.id, frame: portrait.frame, shown: cutOut(portrait.box), size: FACE_SIZE }] : [],
  );
  const faces = useStills(source, wanted, picture);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <IconButton label={t.people} disabled={people.length === 0}>
          <UserRound className="size-4" aria-hidden />
        </IconButton>
      </Dialog.Trigger>
      <DialogPanel title={t.people} width="w-[46rem]">
        {known.length === 0 && <p className="text-sm text-soft">{t.noPeople}</p>}
        <ul className="flex flex-col divide-y divide-line">
          {known.map(({ person, shots: theirs }) => (
            <li key={person.id} className="flex items-center gap-4 py-3" aria-label={t.person(letterOf(person.number))}>
              <span className="size-16 shrink-0 overflow-hidden rounded-md bg-well">
                {faces.get(person.id) && <img src={faces.get(person.id)} alt="" className="size-full" />}
              </span>
              <div className="flex min-w-0 grow flex-col gap-1">
                <span className="flex items-center gap-2">
                  <Letter letter={letterOf(person.number)} colour={person.number} />
                  <PersonName person={person} onChange={onChange} />
                </span>
                <span className="text-xs text-soft">{t.inShots(theirs.length, numbersOf(theirs))}</span>
                <label className="flex items-center gap-2 text-xs">
                  <TickBox
                    checked={attention.mustHave.includes(person.id)}
                    onChange={(isIn) => onAttention(withMust(attention, person.id, isIn))}
                  />
                  {t.mustBeInThePicture}
                </label>
              </div>
              <MergeSelect person={person} known={known} onChange={onChange} />
              <Hint text={t.followThisPersonInEvery}>
                <Button className="whitespace-nowrap" onClick={() => onFollow(person)}>
                  {t.followEverywhere}
                </Button>
              </Hint>
            </li>
          ))}
        </ul>
        <Merged people={people} onChange={onChange} />
        {known.length > 1 && (
          <section aria-label={t.turnsInThisFilm} className="mt-3 border-t border-line pt-3">
            <h3 className="mb-2 text-sm font-medium">{t.turnsInThisFilm}</h3>
            <AttentionFields settings={attention} onChange={(change) => onAttention({ ...attention, ...change })} />
          </section>
        )}
      </DialogPanel>
    </Dialog.Root>
  );
}

function PersonName({ person, onChange }: { person: DeskPerson; onChange: (person: DeskPerson) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const commit = () => {
    const name = typed?.trim() || null;
    if (typed !== null && name !== person.name) onChange({ ...person, name });
    setTyped(null);
  };
  return (
    <input
      aria-label={t.nameOf(letterOf(person.number))}
      placeholder={t.noName}
      maxLength={60}
      value={typed ?? person.name ?? ""}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
      className="min-w-0 grow rounded-sm border border-line bg-raised px-2 py-0.5 text-sm"
    />
  );
}

const nameOf = ({ name, number }: DeskPerson) => (name ? `${letterOf(number)} ${name}` : letterOf(number));

/** Merges a person into another. */
function MergeSelect({
  person,
  known,
  onChange,
}: {
  person: DeskPerson;
  known: Appearance[];
  onChange: (person: DeskPerson) => void;
}) {
  const others = known.filter((other) => other.person !== person);
  if (others.length === 0) return null;
  return (
    <SelectMenu
      label={t.isTheSameAs(letterOf(person.number))}
      placeholder={t.mergeWith}
      items={others.map(({ person: other }) => ({ value: other.id, text: nameOf(other) }))}
      onChange={(into) => onChange({ ...person, mergedInto: into })}
    />
  );
}

/** "1, 4, 7"; the first twelve where there are more. */
const numbersOf = (shots: readonly { number: number }[]): string => {
  const first = shots.slice(0, 12).map(({ number }) => number);
  return `${first.join(", ")}${shots.length > first.length ? " …" : ""}`;
};

/** Merged people, each with a way to undo that. */
function Merged({ people, onChange }: { people: readonly DeskPerson[]; onChange: (person: DeskPerson) => void }) {
  const merged = people.filter(({ mergedInto }) => mergedInto !== null);
  if (merged.length === 0) return null;
  return (
    <ul className="mt-3 flex flex-col gap-1 border-t border-line pt-3 text-sm">
      {merged.map((person) => {
        const into = people.find(({ id }) => id === person.mergedInto);
        return (
          <li key={person.id} className="flex items-center gap-2 text-soft">
            {t.isNow(nameOf(person), into ? nameOf(into) : t.somebodyElse)}
            <Button variant="quiet" className="!py-0.5" onClick={() => onChange({ ...person, mergedInto: null })}>
              {t.unmerge}
            </Button>
          </li>
        );
      })}
    </ul>
  );
}
