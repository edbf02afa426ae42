import { Footprints, Keyboard, RotateCcw } from "lucide-react";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Button, Hint } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { SearchField } from "~/components/common/search-field";
import { startFirstSteps } from "./first-steps";
import {
  isReserved,
  keysOf,
  namesOf,
  SHORTCUT_GROUPS,
  SHORTCUT_IDS,
  type ShortcutId,
  SHORTCUTS,
  usedBy,
} from "../../model/shortcuts";
import { changeKeys, resetKeys, useShortcutKeys, useShortcutText } from "../../hooks/use-shortcut-keys";
import { shortcutsTexts } from "~/texts/shortcuts";

const t = shortcutsTexts.shortcutsDialog;

/** All shortcuts of the desk, searchable and changeable. */
export function ShortcutsDialog() {
  const keys = useShortcutKeys();
  const textOf = useShortcutText();
  const [isOpen, setOpen] = useState(false);
  useHotkeys(keys.help, () => setOpen(true), { preventDefault: true });
  return (
    <Dialog.Root open={isOpen} onOpenChange={setOpen}>
      <Hint text={t.shortcuts} shortcut={textOf("help")}>
        <Dialog.Trigger asChild>
          <Button variant="quiet" aria-label={t.shortcuts} className="h-8 w-8 !px-0">
            <Keyboard className="size-4" aria-hidden />
          </Button>
        </Dialog.Trigger>
      </Hint>
      <DialogPanel title={t.shortcuts} width="w-[44rem]" layout="flex flex-col gap-4">
        <Sheet onLeave={() => setOpen(false)} />
      </DialogPanel>
    </Dialog.Root>
  );
}

function Sheet({ onLeave }: { onLeave: () => void }) {
  const [wanted, setWanted] = useState("");
  const [changing, setChanging] = useState<ShortcutId | null>(null);
  const isFound = (id: ShortcutId) => SHORTCUTS[id].text.toLowerCase().includes(wanted.trim().toLowerCase());
  const found = SHORTCUT_IDS.filter(isFound);
  return (
    <>
      <div className="flex items-center gap-3">
        <div className="grow">
          <SearchField label={t.searchShortcuts} value={wanted} onChange={setWanted} className="grow" />
        </div>
        <Button
          onClick={() => {
            onLeave();
            startFirstSteps();
          }}
        >
          <Footprints className="size-3.5" aria-hidden /> {t.firstSteps}
        </Button>
        <Button onClick={resetKeys}>
          <RotateCcw className="size-3.5" aria-hidden /> {t.resetAll}
        </Button>
      </div>
      {found.length === 0 && <p className="text-sm text-soft">{t.nothingMatches(wanted)}</p>}
      <div className="columns-2 gap-8">
        {SHORTCUT_GROUPS.map((group) => {
          const ids = found.filter((id) => SHORTCUTS[id].group === group);
          if (ids.length === 0) return null;
          return (
            <section key={group} aria-label={group} className="mb-4 break-inside-avoid">
              <h3 className="mb-1 text-sm font-semibold">{group}</h3>
              <ul>
                {ids.map((id) => (
                  <Row key={id} id={id} isChanging={changing === id} onChanging={(is) => setChanging(is ? id : null)} />
                ))}
              </ul>
            </section>
          );
        })}
      </div>
    </>
  );
}

interface RowProps {
  id: ShortcutId;
  isChanging: boolean;
  onChanging: (isChanging: boolean) => void;
}

function Row({ id, isChanging, onChanging }: RowProps) {
  const keys = useShortcutKeys();
  const [refused, setRefused] = useState<string | null>(null);
  const { text } = SHORTCUTS[id];
  const take = (wanted: string) => {
    const other = usedBy(keys, wanted, id);
    const why = isReserved(wanted) ? t.theBrowserUsesTheseKeys : other && t.alreadyUsed(SHORTCUTS[other].text);
    setRefused(why);
    if (!why) changeKeys(id, wanted === SHORTCUTS[id].keys ? null : wanted);
    onChanging(false);
  };
  const canChange = !keys[id].startsWith("mod+");
  return (
    <li className="border-b border-line/60 py-1 text-sm last:border-0">
      <div className="flex items-center justify-between gap-3">
        <span>{text}</span>
        <Hint text={canChange ? t.clickToChangeIt : t.itCannotBeChanged}>
          <button
            type="button"
            disabled={!canChange}
            onClick={() => onChanging(!isChanging)}
            className="flex shrink-0 items-center gap-1 rounded-sm px-1 enabled:hover:bg-well"
          >
            {isChanging ? (
              <span className="text-xs text-accent">{t.pressKeys}</span>
            ) : (
              <>
                <span className="sr-only">{text}: </span>
                {namesOf(keys[id]).map((name) => (
                  <kbd key={name} className="rounded-sm bg-well px-1.5 py-0.5 font-mono text-xs">
                    {name}{" "}
                  </kbd>
                ))}
              </>
            )}
          </button>
        </Hint>
      </div>
      {isChanging && <Recorder onKeys={take} onLeave={() => onChanging(false)} />}
      {refused && (
        <p role="alert" className="text-xs text-warn">
          {refused}
        </p>
      )}
    </li>
  );
}

/** Records a key combination, which has no other effect meanwhile. */
function Recorder({ onKeys, onLeave }: { onKeys: (keys: string) => void; onLeave: () => void }) {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      event.preventDefault();
      event.stopPropagation();
      const keys = keysOf(event);
      if (event.key === "Escape") onLeave();
      else if (keys) onKeys(keys);
    };
    window.addEventListener("keydown", press, { capture: true });
    return () => window.removeEventListener("keydown", press, { capture: true });
  }, [onKeys, onLeave]);
  return null;
}
