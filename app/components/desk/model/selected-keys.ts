import { asOne } from "~/core/edits/as-one";
import type { SingleCommand } from "~/core/edits/command";
import type { Point } from "~/core/geometry/box";
import { clampWindow } from "~/core/geometry/crop-window";
import type { HandKey } from "~/core/path/hand-key";
import { type CopiedKeys, copiedKeys, movedKeys, nudged, pastedKeys } from "~/core/path/key-groups";
import { activeArea } from "~/core/shots/shot";
import { keysTexts } from "~/texts/keys";
import type { DeskPort } from "./desk-model";
import { deskSelector } from "./desk-selector";
import { type DeskShot, shotAt } from "./desk-types";
import { windowAspect } from "./windows";

const t = keysTexts.selectedKeys;

interface OwnKey {
  shot: DeskShot;
  key: HandKey;
}

/** Which keys are selected, by their frames. */
export interface KeyChoice {
  frames: ReadonlySet<number>;
  /** As they were when a move began: what is shown until it ends has them elsewhere. Null while none goes on. */
  moving: readonly OwnKey[] | null;
  copied: CopiedKeys | null;
}

// What was copied stays for other shots, versions and films, as long as the page is there.
let clipboard: CopiedKeys | null = null;
export const NO_KEYS: KeyChoice = { frames: new Set(), moving: null, copied: null };

/** Hand keys that are selected, and what can be done to them together, each as one step to undo. */
export interface SelectedKeys {
  /** Frames of the keys, each in the pane that is selected in its shot. */
  frames: ReadonlySet<number>;
  select: (frames: Iterable<number>) => void;
  toggle: (frame: number) => void;
  remove: () => void;
  nudge: (by: Point) => void;
  /** Moves them in time and place, none of them across a cut. */
  move: (frames: number, by: Point) => void;
  /** Shows what that would be. */
  previewMove: (frames: number, by: Point) => void;
  giveUpMove: () => void;
  copy: () => void;
  /** Puts what was copied at a frame; null while nothing is. */
  paste: ((at: number) => void) | null;
}

/** The keys of shots at some frames. */
const keysAt = (shots: readonly DeskShot[], frames: ReadonlySet<number>): OwnKey[] =>
  frames.size === 0
    ? []
    : shots.flatMap((shot) => shot.handKeys.filter(({ frame }) => frames.has(frame)).map((key) => ({ shot, key })));

export function selectedKeys({ get, put }: DeskPort) {
  const change = (to: Partial<KeyChoice>) => put({ keyChoice: { ...get().keyChoice, ...to } });
  const select = (frames: Iterable<number>) => change({ frames: new Set(frames) });
  const own = (): readonly OwnKey[] => {
    const { shots, keyChoice } = get();
    return keyChoice.moving ?? keysAt(shots, keyChoice.frames);
  };
  const send = (commands: SingleCommand[]) => {
    if (commands.length > 0) get().edits.send(asOne(commands));
  };
  /** Sets a key of a shot, as near to its place as the shot's window can be. */
  const setting = (shot: DeskShot, key: HandKey): SingleCommand => {
    const { version, film } = get();
    const window = clampWindow(key, activeArea(shot, film.picture), windowAspect(shot, film.picture, version));
    return { type: "set-key", versionId: version.id, key: { ...key, ...window } };
  };
  const removals = (keys: readonly OwnKey[]): SingleCommand[] =>
    keys.map(({ key: { pane, frame } }) => ({ type: "remove-key", versionId: get().version.id, pane, frame }));
  /** Keys of one shot after the other, moved together. */
  const moves = (by: number, place: Point): SingleCommand[] => {
    const keys = own();
    const byShot = new Map(keys.map(({ shot }) => [shot.id, shot]));
    const moved = [...byShot.values()].flatMap((shot) => {
      const theirs = keys.filter((each) => each.shot === shot).map(({ key }) => key);
      return movedKeys(nudged(theirs, place), by, shot).map((key) => setting(shot, key));
    });
    return by === 0 ? moved : [...removals(keys), ...moved];
  };
  const commands: Omit<SelectedKeys, "frames" | "paste"> = {
    select,
    toggle: (frame) => {
      const next = new Set(get().keyChoice.frames);
      if (!next.delete(frame)) next.add(frame);
      select(next);
    },
    remove: () => {
      send(removals(own()));
      select([]);
    },
    nudge: (by) => send(moves(0, by)),
    move: (by, place) => {
      const moved = moves(by, place);
      change({ moving: null });
      send(moved);
      select(moved.flatMap((each) => (each.type === "set-key" ? [each.key.frame] : [])));
    },
    previewMove: (by, place) => {
      change({ moving: own() });
      get().edits.preview(asOne(moves(by, place)));
    },
    giveUpMove: () => {
      change({ moving: null });
      get().edits.preview(null);
    },
    copy: () => {
      const keys = own();
      if (keys.length === 0) return;
      clipboard = copiedKeys(keys.map(({ key }) => key));
      change({ copied: clipboard });
      get().tell(t.copied(keys.length));
    },
  };
  const paste = (at: number) => {
    const { shots, tell } = get();
    const shot = shotAt(shots, at);
    if (!clipboard || !shot) return;
    const keys = pastedKeys(clipboard, at, shot.pane, shot);
    send(keys.map((key) => setting(shot, key)));
    const lost = clipboard.length - keys.length;
    if (lost > 0) tell(t.outsideShot(lost));
  };
  return deskSelector(
    [(desk) => desk.shots, (desk) => desk.keyChoice],
    (shots, { frames, moving, copied }): SelectedKeys => ({
      ...commands,
      frames: new Set((moving ?? keysAt(shots, frames)).map(({ key }) => key.frame)),
      paste: (copied ?? clipboard) && paste,
    }),
  );
}
