import { Copy } from "lucide-react";
import { toast } from "sonner";
import { Button } from "~/components/common/button";
import { Menu, MenuItem } from "~/components/common/menu";
import type { SingleCommand } from "~/core/edits/command";
import type { FollowRule } from "~/core/subjects/choosing/follow-rule";
import { useDesk } from "../../hooks/use-desk";
import { type DeskShot, followedIn } from "../../model/desk-types";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.applyFraming;

/**
 * The rule for other shots: a track exists in one shot only, so it becomes the person, if known; switches do not carry
 * over.
 */
function ruleElsewhere(rule: FollowRule, who: string | undefined): FollowRule | null {
  if (rule.kind === "switches") return null;
  if (rule.kind !== "track") return rule;
  return who === undefined ? null : { kind: "person", who };
}

/** Applies a shot's whole framing to other shots: movement, zoom, aim, rule, and layout. */
export function ApplyFraming({ shot }: { shot: DeskShot }) {
  const { shots, selection, state, version, edits, shotCommands } = useDesk(
    "shots",
    "selection",
    "state",
    "version",
    "edits",
    "shotCommands",
  );
  const others = shots.filter(({ id }) => id !== shot.id);
  const selected = others.filter(({ id }) => selection.ids.has(id));
  const who = followedIn(shot)?.track.who;
  const sameWho = who ? others.filter(({ tracks }) => tracks.some((track) => track.who === who)) : [];
  const otherVersions = state.versions.filter(({ id }) => id !== version.id);
  const rule = ruleElsewhere(shot.follow, who);
  const apply = (to: readonly DeskShot[]) => {
    const shotIds = to.map(({ id }) => id);
    const commands: SingleCommand[] = [
      { type: "set-framing", versionId: version.id, shotIds, change: shot.settings },
      ...(rule ? shotCommands.following(to, rule) : []),
    ];
    edits.send({ type: "batch", commands });
    toast(t.appliedToShots(shot.number, to.length));
  };
  const applyToVersions = () => {
    const commands = otherVersions.map(({ id }): SingleCommand => ({
      type: "set-framing",
      versionId: id,
      shotIds: [shot.id],
      change: { ...shot.settings, follow: shot.follow },
    }));
    edits.send({ type: "batch", commands });
    toast(t.appliedToVersions(shot.number, otherVersions.length));
  };
  const items = [
    { name: t.theSelectedShots, to: selected },
    { name: t.shotsWith(followedIn(shot)?.name ?? t.theSamePerson), to: sameWho },
    { name: t.allOtherShots, to: others },
  ];
  return (
    <Menu
      align="start"
      trigger={
        <Button>
          <Copy className="size-4" aria-hidden />
          {t.applyFramingTo}
        </Button>
      }
    >
      {items.map(({ name, to }) => (
        <MenuItem key={name} disabled={to.length === 0} onSelect={() => apply(to)}>
          {name} <span className="ml-auto text-xs text-soft">{to.length}</span>
        </MenuItem>
      ))}
      <MenuItem disabled={otherVersions.length === 0} onSelect={applyToVersions}>
        {t.thisShotInTheOther} <span className="ml-auto text-xs text-soft">{otherVersions.length}</span>
      </MenuItem>
    </Menu>
  );
}
