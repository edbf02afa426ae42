import { clsx } from "clsx";
import { Copy, Ellipsis, Plus, Settings2, Trash2 } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { IconButton } from "~/components/common/button";
import { Menu, MenuItem } from "~/components/common/menu";
import { ShapeIcon } from "~/components/common/shape-icon";
import { picturesOf } from "~/core/clips/clip";
import type { Version } from "~/core/version/film-state";
import { PresetsDialog } from "./dialogs/presets-dialog";
import { VersionDialog, type VersionDraft } from "./dialogs/version-dialog";
import { useDesk } from "../hooks/use-desk";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.versionBar;

/** The film's versions, each with its aspect ratio; the current one can be changed, duplicated and deleted. */
export function VersionBar() {
  const { film, state, version: active, versionCommands } = useDesk("film", "state", "version", "versionCommands");
  const { versions } = state;
  const [edited, setEdited] = useState<Version | "new" | null>(null);
  const done = ({ width, height, name, ...more }: VersionDraft) => {
    if (edited === "new") versionCommands.add({ width, height, name }, more);
    else if (edited) versionCommands.change(edited.id, { width, height, name, ...more });
  };
  return (
    <nav aria-label={t.versions} className="flex min-w-0 items-center gap-1 overflow-x-auto">
      {versions.map((version) => (
        <div
          key={version.id}
          className={clsx("flex shrink-0 items-center rounded-md", version.id === active.id && "bg-well")}
        >
          <Link
            to={`?version=${version.id}`}
            replace
            aria-current={version.id === active.id}
            className={clsx(
              "flex max-w-44 items-center gap-2 rounded-md px-2.5 py-1.5 text-sm",
              version.id === active.id ? "font-semibold" : "text-soft hover:bg-well hover:text-ink",
            )}
          >
            <ShapeIcon {...version} active={version.id === active.id} />
            <span className="truncate">{version.name}</span>
          </Link>
          {version.id === active.id && (
            <VersionMenu
              version={version}
              isOnly={versions.length === 1}
              onSettings={() => setEdited(version)}
              onDuplicate={() => versionCommands.duplicate(version)}
              onRemove={() => versionCommands.remove(version)}
            />
          )}
        </div>
      ))}
      <IconButton label={t.addAVersion} className="shrink-0" onClick={() => setEdited("new")}>
        <Plus className="size-4" aria-hidden />
      </IconButton>
      <PresetsDialog />
      {edited && (
        <VersionDialog
          version={edited === "new" ? null : edited}
          pictures={picturesOf(state.clips, film.picture)}
          onDone={done}
          onClose={() => setEdited(null)}
        />
      )}
    </nav>
  );
}

interface VersionMenuProps {
  version: Version;
  isOnly: boolean;
  onSettings: () => void;
  onDuplicate: () => void;
  onRemove: () => void;
}

function VersionMenu({ version, isOnly, onSettings, onDuplicate, onRemove }: VersionMenuProps) {
  const icon = "size-4";
  return (
    <Menu
      align="start"
      trigger={
        <IconButton label={t.moreFor(version.name)}>
          <Ellipsis className={icon} aria-hidden />
        </IconButton>
      }
    >
      <MenuItem onSelect={onSettings}>
        <Settings2 className={icon} aria-hidden />
        {t.settings}
      </MenuItem>
      <MenuItem onSelect={onDuplicate}>
        <Copy className={icon} aria-hidden />
        {t.duplicate}
      </MenuItem>
      <MenuItem disabled={isOnly} onSelect={onRemove}>
        <Trash2 className={icon} aria-hidden />
        {isOnly ? t.removeAFilmKeepsOne : t.remove}
      </MenuItem>
    </Menu>
  );
}
