import { nanoid } from "nanoid";
import { RotateCcw, SquareSplitHorizontal, Trash2 } from "lucide-react";
import { type FormEvent, useState } from "react";
import { toast } from "sonner";
import { Button, IconButton } from "~/components/common/button";
import { whenWas } from "~/components/common/when";
import type { NamedState } from "~/core/edits/named-state";
import { useDesk } from "../state/desk-context";
import { changeStates, type StateChange } from "./film-history";
import { historyTexts } from "~/texts/history";

const t = historyTexts.namedStates;

interface NamedStatesProps {
  states: readonly NamedState[];
  /** Some have come or gone. */
  onChanged: () => void;
}

/** Gives the film as it is a name, and goes back to what has one or compares it with now. */
export function NamedStates({ states, onChanged }: NamedStatesProps) {
  const { film, edits, look } = useDesk();
  const [name, setName] = useState("");
  const change = async (to: StateChange) => {
    const problem = await changeStates(film.id, to);
    if (problem) toast.error(problem);
    else onChanged();
    return problem === null;
  };
  const save = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === "") return;
    if (await change({ do: "name", id: nanoid(10), name: name.trim() })) setName("");
  };
  const remove = async ({ id, name: gone }: NamedState) => {
    if (!(await change({ do: "delete", id }))) return;
    toast(t.deleted(gone), { action: { label: t.undo, onClick: () => void change({ do: "put-back", id }) } });
  };
  return (
    <section aria-label={t.namedStates} className="flex flex-col gap-2">
      <form onSubmit={(event) => void save(event)} className="flex gap-2">
        <input
          aria-label={t.nameOfThisState}
          placeholder={t.nameThisStateSuchAs}
          maxLength={60}
          value={name}
          onChange={({ target }) => setName(target.value)}
          className="min-w-0 grow rounded-md border border-line bg-raised px-2 py-1 text-sm"
        />
        <Button type="submit" disabled={name.trim() === ""}>
          {t.save}
        </Button>
      </form>
      {states.length > 0 && (
        <ul className="max-h-40 overflow-y-auto">
          {states.map((state) => (
            <li key={state.id} aria-label={state.name} className="flex items-center gap-1 text-sm">
              <span className="min-w-0 grow truncate font-semibold">{state.name}</span>
              <span className="shrink-0 text-xs text-soft">{whenWas(state.madeAt)}</span>
              <IconButton
                label={t.compareWithNow}
                onClick={() => look.setComparison({ kind: "state", stateId: state.id, name: state.name })}
              >
                <SquareSplitHorizontal className="size-4" aria-hidden />
              </IconButton>
              <IconButton
                label={t.returnToThisState}
                onClick={() => edits.goBack({ do: "return-to", stateId: state.id })}
              >
                <RotateCcw className="size-4" aria-hidden />
              </IconButton>
              <IconButton label={t.deleteThisNamedState} onClick={() => void remove(state)}>
                <Trash2 className="size-4" aria-hidden />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
