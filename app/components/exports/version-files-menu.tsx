import { FileDown } from "lucide-react";
import { IconButton } from "~/components/common/button";
import { Menu, MenuHeading, MenuItem } from "~/components/common/menu";
import { exportsTexts } from "~/texts/exports";

const t = exportsTexts.versionFilesMenu;

const GROUPS = [
  { name: t.cuts, files: ["cuts.edl", "timeline.otio", "cuts.csv"] },
  { name: t.paths, files: ["keys.csv", "path.csv", "report.json"] },
  { name: t.checks, files: ["flags.csv", "flags.json"] },
] as const;
const CAPTIONS = ["captions.srt", "captions.vtt"] as const;

interface VersionFilesMenuProps {
  filmId: string;
  version: { id: string; name: string };
  hasCaptions: boolean;
  /** Address of a frame's picture; left out where no frame is on screen. */
  still?: (() => string) | undefined;
}

/** Everything known of a version, saved in open formats. */
export function VersionFilesMenu({ filmId, version, hasCaptions, still }: VersionFilesMenuProps) {
  const address = (file: string) => `/films/${filmId}/versions/${version.id}/${file}`;
  const groups = [...GROUPS, ...(hasCaptions ? [{ name: t.captions, files: CAPTIONS }] : [])];
  return (
    <Menu
      align="end"
      trigger={
        <IconButton label={t.otherFiles(version.name)}>
          <FileDown className="size-4" aria-hidden />
        </IconButton>
      }
    >
      <MenuItem asChild>
        <a href={address("all.zip")} download>
          {t.all}
        </a>
      </MenuItem>
      {groups.map(({ name, files }) => (
        <div key={name}>
          <MenuHeading>{name}</MenuHeading>
          {files.map((file) => (
            <MenuItem key={file} asChild>
              <a href={address(file)} download>
                {file}
              </a>
            </MenuItem>
          ))}
        </div>
      ))}
      {still && (
        <MenuItem asChild>
          <a href={still()} download="frame.png">
            {t.still}
          </a>
        </MenuItem>
      )}
    </Menu>
  );
}
