import { nanoid } from "nanoid";
import { Milestone, RotateCcw, SquareSplitHorizontal, Trash2 } from "lucide-react";
import { type FormEvent, useState } from "react";
import { toast } from "sonner";
import { Button, IconButton } from "~/components/common/button";
import { IconPanel } from "~/components/common/icon-panel";
import { useLoaded } from "~/components/common/use-loaded";
import { whenWas } from "~/components/common/when";
import type { Checkpoint } from "~/core/edits/checkpoint";
import { useDesk } from "../../hooks/use-desk";
import { changeCheckpoints, type CheckpointChange, loadCheckpoints } from "../../hooks/film-checkpoints";
import { historyTexts } from "~/texts/history";

const t = historyTexts.checkpoints;

/** The film's checkpoints: to return to, or to compare with. */
export const CheckpointsPanel = () => (
  <IconPanel title={t.checkpoints} Icon={Milestone} width="w-96">
    <Contents />
  </IconPanel>
);

function Contents() {
  const { film, edits, look } = useDesk("film", "edits", "look");
  const [name, setName] = useState("");
  const [changes, setChanges] = useState(0);
  const checkpoints = useLoaded(() => loadCheckpoints(film.id), [film.id, changes], t.couldNotBeLoaded);
  const change = async (to: CheckpointChange) => {
    const problem = await changeCheckpoints(film.id, to);
    if (problem) toast.error(problem);
    else setChanges((count) => count + 1);
    return problem === null;
  };
  const save = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === "") return;
    if (await change({ do: "add", id: nanoid(10), name: name.trim() })) setName("");
  };
  const remove = async ({ id, name: gone }: Checkpoint) => {
    if (!(await change({ do: "delete", id }))) return;
    toast(t.deleted(gone), { action: { label: t.undo, onClick: () => void change({ do: "put-back", id }) } });
  };
  return (
    <>
      <form onSubmit={(event) => void save(event)} className="flex gap-2">
        <input
          aria-label={t.name}
          placeholder={t.namePlaceholder}
          maxLength={60}
          value={name}
          onChange={({ target }) => setName(target.value)}
          className="min-w-0 grow rounded-md border border-line bg-raised px-2 py-1 text-sm"
        />
        <Button type="submit" disabled={name.trim() === ""}>
          {t.save}
        </Button>
      </form>
      {checkpoints?.length === 0 && <p className="text-sm text-soft">{t.none}</p>}
      {checkpoints && checkpoints.length > 0 && (
        <ul className="max-h-40 overflow-y-auto">
          {checkpoints.map((checkpoint) => (
            <li key={checkpoint.id} aria-label={checkpoint.name} className="flex items-center gap-1 text-sm">
              <span className="min-w-0 grow truncate font-semibold">{checkpoint.name}</span>
              <span className="shrink-0 text-xs text-soft">{whenWas(checkpoint.madeAt)}</span>
              <IconButton
                label={t.compareWithNow}
                onClick={() =>
                  look.setComparison({ kind: "state", checkpointId: checkpoint.id, name: checkpoint.name })
                }
              >
                <SquareSplitHorizontal className="size-4" aria-hidden />
              </IconButton>
              <IconButton
                label={t.goBack}
                onClick={() => edits.goBack({ do: "return-to", checkpointId: checkpoint.id })}
              >
                <RotateCcw className="size-4" aria-hidden />
              </IconButton>
              <IconButton label={t.delete} onClick={() => void remove(checkpoint)}>
                <Trash2 className="size-4" aria-hidden />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
