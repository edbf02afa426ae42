import { RefreshCw } from "lucide-react";
import { toast } from "sonner";
import { Button } from "~/components/common/button";
import { Menu, MenuItem } from "~/components/common/menu";
import type { SingleCommand } from "~/core/edits/command";
import { settingNames } from "~/core/edits/describe";
import { ShotSetting } from "~/core/version/settle";
import { AUTO } from "~/core/subjects/choosing/follow-rule";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.resetFraming;

/** The settings that resetting the framing removes; hand keys and marks stay. */
interface Own {
  shot: DeskShot;
  settings: ShotSetting[];
}

/** Frames shots again without their own settings, around the editor's keyframes and marks. */
export function ResetFraming({ shot }: { shot: DeskShot }) {
  const { shots, selection, state, version, edits, look } = useDesk(
    "shots",
    "selection",
    "state",
    "version",
    "edits",
    "look",
  );
  const inVersion = state.versions.find(({ id }) => id === version.id)?.shots;
  const ownOf = (some: readonly DeskShot[]): Own[] =>
    some.flatMap((each) => {
      const said = Object.keys(inVersion?.get(each.id) ?? {}).filter((name) => name !== "protect");
      const settings = said.flatMap((name) => ShotSetting.safeParse(name).data ?? []);
      const isLed = each.follow.kind !== "auto" && !settings.includes("follow");
      return settings.length > 0 || isLed ? [{ shot: each, settings }] : [];
    });
  const reset = (own: readonly Own[]) => {
    const commands = own.flatMap(({ shot: each, settings }): SingleCommand[] => [
      ...(settings.length > 0
        ? [{ type: "set-framing" as const, versionId: version.id, shotIds: [each.id], change: {}, reset: settings }]
        : []),
      ...(each.own.follow ? [] : [{ type: "change-shots" as const, shotIds: [each.id], change: { follow: AUTO } }]),
    ]);
    const before = state;
    edits.send({ type: "batch", commands });
    toast(t.framingReset(own.length), {
      action: {
        label: t.compareWithBefore,
        onClick: () => look.setComparison({ kind: "earlier", name: t.before, state: before }),
      },
    });
  };
  const here = ownOf([shot]);
  const names = here.flatMap(({ settings }) => [
    ...settings,
    ...(settings.includes("follow") || shot.follow.kind === "auto" ? [] : (["follow"] as const)),
  ]);
  const items = [
    { name: names.length > 0 ? t.thisShot(settingNames(names)) : t.thisShotNothingIsSet, own: here },
    { name: t.theSelectedShots, own: ownOf(shots.filter(({ id }) => selection.ids.has(id))) },
    { name: t.allShots, own: ownOf(shots) },
  ];
  return (
    <Menu
      align="start"
      trigger={
        <Button>
          <RefreshCw className="size-4" aria-hidden />
          {t.resetFraming}
        </Button>
      }
    >
      <p className="max-w-64 px-2 py-1 text-xs text-soft">{t.resetHint}</p>
      {items.map(({ name, own }) => (
        <MenuItem key={name} disabled={own.length === 0} onSelect={() => reset(own)}>
          {name} <span className="ml-auto text-xs text-soft">{own.length}</span>
        </MenuItem>
      ))}
    </Menu>
  );
}
