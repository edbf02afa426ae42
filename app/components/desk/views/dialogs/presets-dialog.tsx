import { SwatchBook, Trash2 } from "lucide-react";
import { nanoid } from "nanoid";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { toast } from "sonner";
import { Button, Hint, IconButton } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { type BrokenPreset, type Preset, type PresetChange, presetOf, versionsOf } from "~/core/edits/preset";
import { useDesk } from "../../hooks/use-desk";
import { dialogsTexts } from "~/texts/dialogs";

const t = dialogsTexts.presetsDialog;

/** Presets: saves the versions of this film for others, and applies saved ones. */
export function PresetsDialog() {
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <IconButton label={t.presetsHint} className="shrink-0">
          <SwatchBook className="size-4" aria-hidden />
        </IconButton>
      </Dialog.Trigger>
      <DialogPanel title={t.presets} width="w-[32rem]" layout="flex flex-col gap-5">
        <Presets />
      </DialogPanel>
    </Dialog.Root>
  );
}

function Presets() {
  const { data, load } = useFetcher<{ presets: Preset[]; broken: BrokenPreset[] }>();
  const change = useFetcher<{ error: string | null }>();
  useEffect(() => void load("/presets"), [load]);
  const send = (to: PresetChange) =>
    void change.submit(to, { method: "post", encType: "application/json", action: "/presets" });
  const remove = (preset: Preset) => {
    send({ do: "delete", id: preset.id });
    toast(t.deletedThePreset(preset.name), {
      action: { label: t.undo, onClick: () => send({ do: "save", preset }) },
    });
  };
  const { presets, broken } = data ?? { presets: [], broken: [] };
  return (
    <>
      {!data && <p className="text-sm text-soft">{t.loadingThePresets}</p>}
      {data && presets.length + broken.length === 0 && <p className="text-sm text-soft">{t.noneYet}</p>}
      {presets.length + broken.length > 0 && (
        <ul className="flex flex-col gap-2">
          {presets.map((preset) => (
            <PresetRow
              key={preset.id}
              preset={preset}
              onRename={(name) => send({ do: "save", preset: { ...preset, name } })}
              onRemove={() => remove(preset)}
            />
          ))}
          {broken.map(({ id, name }) => (
            <BrokenPresetRow key={id} name={name} onRemove={() => send({ do: "delete", id })} />
          ))}
        </ul>
      )}
      {change.data?.error && (
        <p role="alert" className="text-sm text-warn">
          {change.data.error}
        </p>
      )}
      <SavePreset known={[...presets, ...broken]} onSave={(preset) => send({ do: "save", preset })} />
    </>
  );
}

interface PresetRowProps {
  preset: Preset;
  onRename: (name: string) => void;
  onRemove: () => void;
}

function PresetRow({ preset, onRename, onRemove }: PresetRowProps) {
  const { edits } = useDesk("edits");
  const [typed, setTyped] = useState<string | null>(null);
  const rename = () => {
    const name = typed?.trim();
    if (name && name !== preset.name) onRename(name);
    setTyped(null);
  };
  const use = () => {
    const commands = versionsOf(preset, () => nanoid(10)).map((version) => ({
      type: "add-version" as const,
      version,
    }));
    edits.send({ type: "batch", commands });
  };
  return (
    <li className="flex items-center gap-2 rounded-md border border-line bg-raised px-3 py-2">
      <div className="min-w-0 grow">
        <input
          aria-label={t.nameOfThePreset(preset.name)}
          value={typed ?? preset.name}
          maxLength={60}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={rename}
          onKeyDown={(event) => {
            if (event.key === "Enter") rename();
          }}
          className="w-full rounded-sm border border-transparent bg-transparent font-medium hover:border-line focus:border-line"
        />
        <p className="truncate text-xs text-soft">
          {preset.versions.map(({ name, width, height }) => `${name} (${width} × ${height})`).join(", ")}
        </p>
      </div>
      <Hint text={t.useHint}>
        <Dialog.Close asChild>
          <Button className="shrink-0" onClick={use}>
            {t.useHere}
          </Button>
        </Dialog.Close>
      </Hint>
      <IconButton label={t.deleteThePreset(preset.name)} onClick={onRemove}>
        <Trash2 className="size-4" aria-hidden />
      </IconButton>
    </li>
  );
}

interface BrokenPresetRowProps {
  name: string;
  onRemove: () => void;
}

/** A preset that cannot be read, and cannot be restored either. */
function BrokenPresetRow({ name, onRemove }: BrokenPresetRowProps) {
  return (
    <li className="flex items-center gap-2 rounded-md border border-line bg-raised px-3 py-2">
      <div className="min-w-0 grow">
        <p className="truncate font-medium">{name}</p>
        <p role="alert" className="text-xs text-warn">
          {t.brokenHint}
        </p>
      </div>
      <IconButton label={t.deleteThePreset(name)} onClick={onRemove}>
        <Trash2 className="size-4" aria-hidden />
      </IconButton>
    </li>
  );
}

interface SavePresetProps {
  known: readonly BrokenPreset[];
  onSave: (preset: Preset) => void;
}

/** Saves the film's versions as a preset; one of the same name is replaced. */
function SavePreset({ known, onSave }: SavePresetProps) {
  const { state } = useDesk("state");
  const [name, setName] = useState("");
  const wanted = name.trim();
  const same = known.find((preset) => preset.name.toLowerCase() === wanted.toLowerCase());
  return (
    <form
      className="border-t border-line pt-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (!wanted) return;
        onSave({ id: same?.id ?? nanoid(10), name: wanted, versions: presetOf(state.versions) });
        setName("");
      }}
    >
      <h3 className="text-sm font-medium">{t.saveThisFilmsVersions}</h3>
      <p className="mt-1 text-xs text-soft">{t.presetHint(state.versions.length)}</p>
      <div className="mt-2 flex gap-2">
        <input
          aria-label={t.newName}
          placeholder={t.name}
          value={name}
          maxLength={60}
          onChange={(event) => setName(event.target.value)}
          className="min-w-0 grow rounded-md border border-line bg-raised px-2 py-1 text-sm"
        />
        <Button type="submit" variant="accent" disabled={!wanted}>
          {same ? t.replace : t.saveAsPreset}
        </Button>
      </div>
    </form>
  );
}
