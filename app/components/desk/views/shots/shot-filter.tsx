import { Check, ListFilter } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { IconButton } from "~/components/common/button";
import type { DeskShot } from "../../model/desk-types";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.shotFilter;

/** Filters of the shot list. */
export const SHOT_FILTERS = {
  all: { name: t.allShots, test: () => true },
  flags: { name: t.flagged, test: (shot: DeskShot) => shot.flags.some(({ isReviewed }) => !isReviewed) },
  keys: { name: t.withYourKeys, test: (shot: DeskShot) => shot.handKeys.length > 0 },
  nobody: {
    name: t.noSubject,
    test: (shot: DeskShot) => shot.isAnalysed && shot.framed !== null && shot.framed.subjectId === null,
  },
  text: { name: t.withText, test: (shot: DeskShot) => shot.tracks.some(({ kind }) => kind === "text") },
  excluded: { name: t.leftOut, test: (shot: DeskShot) => shot.kept.length === 0 },
} as const;
export type ShotFilter = keyof typeof SHOT_FILTERS;

interface ShotFilterMenuProps {
  shots: readonly DeskShot[];
  value: ShotFilter;
  onChange: (filter: ShotFilter) => void;
}

export function ShotFilterMenu({ shots, value, onChange }: ShotFilterMenuProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <IconButton label={t.show(SHOT_FILTERS[value].name)} className={value === "all" ? "" : "!text-accent"}>
          <ListFilter className="size-4" aria-hidden />
        </IconButton>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-40 min-w-56 rounded-md border border-line bg-raised p-1 shadow-lg"
        >
          <DropdownMenu.RadioGroup value={value} onValueChange={(next) => onChange(next as ShotFilter)}>
            {Object.entries(SHOT_FILTERS).map(([key, { name, test }]) => (
              <DropdownMenu.RadioItem
                key={key}
                value={key}
                className="flex cursor-default items-center gap-2 rounded-sm px-2 py-1.5 text-sm outline-none data-highlighted:bg-well"
              >
                <span className="size-4">
                  <DropdownMenu.ItemIndicator>
                    <Check className="size-4" aria-hidden />
                  </DropdownMenu.ItemIndicator>
                </span>
                {name}
                <span className="ml-auto text-xs text-soft">{shots.filter(test).length}</span>
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
