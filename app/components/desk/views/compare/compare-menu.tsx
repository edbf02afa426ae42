import { SquareSplitHorizontal } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { IconButton } from "~/components/common/button";
import { MenuHeading, MenuItem, Menu, MenuTick } from "~/components/common/menu";
import type { Checkpoint } from "~/core/edits/checkpoint";
import { type Movement, MOVEMENT_TEXT, MOVEMENTS } from "~/core/path/movement";
import { loadCheckpoints } from "../../hooks/film-checkpoints";
import { useShortcutText } from "../../hooks/use-shortcut-keys";
import { useDesk } from "../../hooks/use-desk";
import { MOST_BESIDE } from "../../model/comparison";
import { compareTexts } from "~/texts/compare";

const t = compareTexts.compareMenu;

/** Adds an item to the selection or removes it; the newest stay where there are too many. */
const toggled = <T,>(selected: readonly T[], one: T): T[] =>
  selected.includes(one) ? selected.filter((other) => other !== one) : [...selected, one].slice(-MOST_BESIDE);

/** Selects what the version is compared with. */
export function CompareMenu() {
  const { film, state, version, look } = useDesk("film", "state", "version", "look");
  const { comparison, setComparison } = look;
  const keysOf = useShortcutText();
  const [states, setStates] = useState<readonly Checkpoint[]>([]);
  const load = () =>
    // The menu works without checkpoints.
    void loadCheckpoints(film.id).then(setStates, () => setStates([]));
  const others = state.versions.filter(({ id }) => id !== version.id);
  const movements = comparison?.kind === "movements" ? comparison.movements : [];
  const versionIds = comparison?.kind === "versions" ? comparison.versionIds : [];
  const chooseMovement = (movement: Movement) => {
    const next = toggled(movements, movement);
    setComparison(next.length > 0 ? { kind: "movements", movements: next } : null);
  };
  const selectVersion = (id: string) => {
    const next = toggled(versionIds, id);
    setComparison(next.length > 0 ? { kind: "versions", versionIds: next } : null);
  };
  return (
    <Menu
      align="end"
      onOpen={load}
      trigger={
        <IconButton label={t.compare} shortcut={keysOf("compare")} aria-pressed={comparison !== null}>
          <SquareSplitHorizontal className="size-4" aria-hidden />
        </IconButton>
      }
    >
      <MenuTick
        isOn={comparison?.kind === "centre"}
        onToggle={(isOn) => setComparison(isOn ? { kind: "centre" } : null)}
      >
        {t.centreCrop}
      </MenuTick>
      <MenuHeading>{t.otherMovements}</MenuHeading>
      {MOVEMENTS.map((movement) => (
        <MenuTick key={movement} isOn={movements.includes(movement)} onToggle={() => chooseMovement(movement)}>
          {MOVEMENT_TEXT[movement].name}
        </MenuTick>
      ))}
      {others.length > 0 && <MenuHeading>{t.otherVersions}</MenuHeading>}
      {others.map(({ id, name }) => (
        <MenuTick key={id} isOn={versionIds.includes(id)} onToggle={() => selectVersion(id)}>
          {name}
        </MenuTick>
      ))}
      {states.length > 0 && <MenuHeading>{t.checkpoints}</MenuHeading>}
      {states.map(({ id, name }) => (
        <MenuTick
          key={id}
          isOn={comparison?.kind === "state" && comparison.checkpointId === id}
          onToggle={(isOn) => setComparison(isOn ? { kind: "state", checkpointId: id, name } : null)}
        >
          {name}
        </MenuTick>
      ))}
      {comparison && (
        <>
          <DropdownMenu.Separator className="my-1 h-px bg-line" />
          <MenuItem onSelect={() => setComparison(null)}>{t.stopComparing}</MenuItem>
        </>
      )}
    </Menu>
  );
}
