import { Plus } from "lucide-react";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { Button } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { TickBox } from "~/components/common/tick-box";
import type { OutputSettings } from "~/core/formats/output-settings";
import { outputSummary } from "./output-summary";
import { exportsTexts } from "~/texts/exports";

const t = exportsTexts.addExports;

export interface FilmToExport {
  id: string;
  name: string;
  versions: readonly { id: string; name: string; width: number; height: number; output: OutputSettings }[];
}

/** Selected versions by film. */
export type SelectedVersions = Record<string, string[]>;

interface AddExportsProps {
  films: readonly FilmToExport[];
  onExport: (selected: SelectedVersions) => void;
}

/** Exports versions of several films at once. */
export function AddExports({ films, onExport }: AddExportsProps) {
  const [isOpen, setOpen] = useState(false);
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const all = films.flatMap(({ versions }) => versions.map(({ id }) => id));
  const tick = (ids: readonly string[], is: boolean) =>
    setTicked(new Set(is ? [...ticked, ...ids] : [...ticked].filter((id) => !ids.includes(id))));
  const start = () => {
    const selected = films.flatMap(({ id, versions }): [string, string[]][] => {
      const ids = versions.map((version) => version.id).filter((each) => ticked.has(each));
      return ids.length > 0 ? [[id, ids]] : [];
    });
    onExport(Object.fromEntries(selected));
    setOpen(false);
    setTicked(new Set());
  };
  return (
    <Dialog.Root open={isOpen} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button variant="accent">
          <Plus className="size-4" aria-hidden />
          {t.exportFilms}
        </Button>
      </Dialog.Trigger>
      <DialogPanel title={t.exportFilms} width="w-[36rem]" layout="flex flex-col gap-3">
        <p className="text-sm text-soft">{films.length > 0 ? t.selectVersions : t.noFilms}</p>
        {films.length > 0 && (
          <label className="flex items-center gap-2 text-sm font-medium">
            <TickBox checked={all.every((id) => ticked.has(id))} onChange={(is) => tick(all, is)} />
            {t.all}
          </label>
        )}
        <ul className="flex flex-col gap-3">
          {films.map(({ id, name, versions }) => (
            <li key={id}>
              <h3 className="truncate text-xs text-soft">{name}</h3>
              {versions.map((version) => (
                <label key={version.id} className="flex items-center gap-2 py-0.5 text-sm">
                  <TickBox checked={ticked.has(version.id)} onChange={(is) => tick([version.id], is)} />
                  <span className="truncate">{version.name}</span>
                  <span className="truncate text-xs text-soft">
                    {version.width} × {version.height}, {outputSummary(version.output)}
                  </span>
                </label>
              ))}
            </li>
          ))}
        </ul>
        <Button variant="accent" className="self-end" disabled={ticked.size === 0} onClick={start}>
          {t.exportCount(ticked.size)}
        </Button>
      </DialogPanel>
    </Dialog.Root>
  );
}
