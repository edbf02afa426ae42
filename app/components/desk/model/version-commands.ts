import { nanoid } from "nanoid";
import { useMemo } from "react";
import { useSearchParams } from "react-router";
import { toast } from "sonner";
import type { VersionChange } from "~/core/edits/command";
import { newVersion, type Version } from "~/core/version/film-state";
import type { Size } from "~/core/geometry/box";
import type { Edits } from "../hooks/use-edits";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.useVersionEdits;

/** What can be done to a film's versions. */
export interface VersionEdits {
  /** Makes a version and shows it. */
  add: (shape: Size & Pick<Version, "name">, more: VersionChange) => void;
  change: (versionId: string, change: VersionChange) => void;
  /** Makes another one that is like it, and shows that. */
  duplicate: (version: Version) => void;
  remove: (version: Version) => void;
}

export function useVersionEdits({ send, undo }: Edits): VersionEdits {
  const [, setSearch] = useSearchParams();
  return useMemo(() => {
    const show = (version: string) => setSearch({ version }, { replace: true });
    return {
      add: (shape, more) => {
        const id = nanoid(10);
        send({ type: "add-version", version: { ...newVersion({ ...shape, id }), ...more } });
        show(id);
      },
      change: (versionId, change) => send({ type: "change-version", versionId, change }),
      duplicate: ({ id: versionId, name }) => {
        const id = nanoid(10);
        send({ type: "duplicate-version", versionId, id, name: t.copy(name.slice(0, 70)) });
        show(id);
      },
      remove: ({ id: versionId, name }) => {
        send({ type: "remove-version", versionId });
        toast(t.removedAndItsKeys(name), { action: { label: t.undo, onClick: undo } });
      },
    };
  }, [send, undo, setSearch]);
}
