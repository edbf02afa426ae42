import { nanoid } from "nanoid";
import type { VersionChange } from "~/core/edits/command";
import type { Size } from "~/core/geometry/box";
import { newVersion, type Version } from "~/core/version/film-state";
import { deskTexts } from "~/texts/desk";
import type { DeskPort } from "./desk-model";

const t = deskTexts.versionCommands;

/** Commands on a film's versions. */
export interface VersionCommands {
  /** Makes a version and shows it. */
  add: (shape: Size & Pick<Version, "name">, more: VersionChange) => void;
  change: (versionId: string, change: VersionChange) => void;
  /** Duplicates a version, and shows the copy. */
  duplicate: (version: Version) => void;
  remove: (version: Version) => void;
}

export const versionCommands = ({ get }: DeskPort): VersionCommands => ({
  add: (shape, more) => {
    const id = nanoid(10);
    get().edits.send({ type: "add-version", version: { ...newVersion({ ...shape, id }), ...more } });
    get().showVersion(id);
  },
  change: (versionId, change) => get().edits.send({ type: "change-version", versionId, change }),
  duplicate: ({ id: versionId, name }) => {
    const id = nanoid(10);
    get().edits.send({ type: "duplicate-version", versionId, id, name: t.copy(name.slice(0, 70)) });
    get().showVersion(id);
  },
  remove: ({ id: versionId, name }) => {
    const { edits, tell } = get();
    edits.send({ type: "remove-version", versionId });
    tell(t.removedAndItsKeys(name), "plain", { label: t.undo, run: edits.undo });
  },
});
