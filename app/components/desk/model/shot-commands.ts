import type { Command, ShotChange, SingleCommand } from "~/core/edits/command";
import { asOne } from "~/core/edits/as-one";
import { changeInPane, type ShotInVersion } from "~/core/version/settle";
import type { Box } from "~/core/geometry/box";
import type { FollowRule } from "~/core/subjects/choosing/follow-rule";
import { type DeskShot, shotAt } from "./desk-types";
import type { DeskPort } from "./desk-model";

/** Settings for which a version can override the film. */
export type OwnSetting = "follow" | "protect";

/** Commands on shots; "here" is the shot under the playhead. */
export interface ShotCommands {
  /** Changes shots for the whole film. */
  change: (shots: readonly DeskShot[], change: ShotChange) => void;
  /** Changes how the version frames shots. */
  setFraming: (shots: readonly DeskShot[], change: ShotInVersion) => void;
  /** Sets whom shots follow: in the version where it overrides the film, else in the film. */
  follow: (shots: readonly DeskShot[], rule: FollowRule) => void;
  /** The command that does so. */
  following: (shots: readonly DeskShot[], rule: FollowRule) => SingleCommand[];
  /** Sets a shot's protected area, in the version or the film likewise. */
  protect: (shot: DeskShot, box: Box | null) => void;
  /** Starts an override in the version, with the film's setting at first, or ends it. */
  setOwn: (shot: DeskShot, setting: OwnSetting, own: boolean) => void;
  splitHere: (kind: "cut" | "switch") => void;
  join: (shots: readonly DeskShot[]) => void;
  joinNext: () => void;
  excludeHere: () => void;
  moveCut: (shot: DeskShot, frame: number) => void;
  /** Moves the start of the shot under the playhead by some frames, and the playhead with it. */
  nudgeCut: (by: number) => void;
}

const idsOf = (shots: readonly DeskShot[]) => shots.map(({ id }) => id);

/** The commands that change a setting of shots: in the version where it overrides the film, else in the film. */
function settingCommands(
  shots: readonly DeskShot[],
  versionId: string,
  setting: OwnSetting,
  change: Pick<ShotInVersion, OwnSetting> & Pick<ShotChange, OwnSetting>,
): SingleCommand[] {
  const own = idsOf(shots.filter((shot) => shot.own[setting]));
  const others = idsOf(shots.filter((shot) => !shot.own[setting]));
  return [
    ...(others.length > 0 ? [{ type: "change-shots" as const, shotIds: others, change }] : []),
    ...(own.length > 0 ? [{ type: "set-framing" as const, versionId, shotIds: own, change }] : []),
  ];
}

/** The commands that change how the version frames shots, each in its selected pane. */
export function framingCommands(shots: readonly DeskShot[], versionId: string, change: ShotInVersion): SingleCommand[] {
  const alike = idsOf(shots.filter(({ pane }) => pane === 0));
  return [
    ...(alike.length > 0 ? [{ type: "set-framing" as const, versionId, shotIds: alike, change }] : []),
    ...shots
      .filter(({ pane }) => pane > 0)
      .map(({ id, settings, pane }) => ({
        type: "set-framing" as const,
        versionId,
        shotIds: [id],
        change: changeInPane(settings, pane, change),
      })),
  ];
}

export function shotCommands({ get }: DeskPort): ShotCommands {
  const here = () => {
    const { player, shots } = get();
    return player ? shotAt(shots, player.getTarget()) : undefined;
  };
  const send = (command: Command) => get().edits.send(command);
  const sendAll = (commands: SingleCommand[]) => {
    if (commands.length > 0) send(asOne(commands));
  };
  const change = (some: readonly DeskShot[], to: ShotChange) =>
    send({ type: "change-shots", shotIds: idsOf(some), change: to });
  const moveCut = (shot: DeskShot, frame: number) => {
    send({ type: "move-cut", shotId: shot.id, frame });
    get().player?.seek(frame);
  };
  const following = (some: readonly DeskShot[], follow: FollowRule) => {
    const versionId = get().version.id;
    const [whole, inPanes] = [some.filter(({ pane }) => pane === 0), some.filter(({ pane }) => pane > 0)];
    return [
      ...settingCommands(whole, versionId, "follow", { follow }),
      ...framingCommands(inPanes, versionId, { follow }),
    ];
  };
  return {
    change,
    setFraming: (some, to) => sendAll(framingCommands(some, get().version.id, to)),
    follow: (some, rule) => sendAll(following(some, rule)),
    following,
    protect: (shot, protect) => sendAll(settingCommands([shot], get().version.id, "protect", { protect })),
    setOwn: (shot, setting, own) =>
      send({
        type: "set-framing",
        versionId: get().version.id,
        shotIds: [shot.id],
        change: own ? { [setting]: shot[setting] } : {},
        ...(own ? {} : { reset: [setting] }),
      }),
    splitHere: (kind) => {
      const frame = get().player?.getTarget() ?? 0;
      if (frame > (here()?.start ?? frame)) send({ type: "split-shot", frame, kind });
    },
    join: (some) => send({ type: "join-shots", shotIds: idsOf(some) }),
    joinNext: () => {
      const shot = here();
      const next = shot && get().shots[shot.number];
      if (next) send({ type: "join-shots", shotIds: [shot.id, next.id] });
    },
    excludeHere: () => {
      const shot = here();
      if (shot) change([shot], { excluded: !shot.excluded });
    },
    moveCut,
    nudgeCut: (by) => {
      const shot = here();
      const before = shot && get().shots[shot.number - 2];
      const frame = (shot?.start ?? 0) + by;
      if (shot && before && frame > before.start && frame < shot.end) moveCut(shot, frame);
    },
  };
}
