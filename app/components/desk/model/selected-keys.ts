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

/** The selected keys, by their frames. */
export interface KeyChoice {
  frames: ReadonlySet<number>;
  /** The keys as they were when a move began: shown elsewhere until it ends. Null while none is under way. */
  moving: readonly OwnKey[] | null;
  copied: CopiedKeys | null;
}

// Copied keys stay available for other shots, versions and films while the page is open.
let clipboard: CopiedKeys | null = null;
export const NO_KEYS: KeyChoice = { frames: new Set(), moving: null, copied: null };

/** Selected hand keys, and commands on all of them, each one step to undo. */
export interface SelectedKeys {
  /** Frames of the keys, each in its shot's selected pane. */
  frames: ReadonlySet<number>;
  select: (frames: Iterable<number>) => void;
  toggle: (frame: number) => void;
  remove: () => void;
  nudge: (by: Point) => void;
  /** Moves them in time and place, none of them across a cut. */
  move: (frames: number, by: Point) => void;
  /** Previews such a move. */
  previewMove: (frames: number, by: Point) => void;
  giveUpMove: () => void;
  copy: () => void;
  /** Pastes copied keys at a frame; null while there are none. */
  paste: ((at: number) => void) | null;
}

/** The keys at some frames of shots. */
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
  /** Places a key in a shot, as near to its place as the shot's window can be. */
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
