import { clsx } from "clsx";
import { Plus } from "lucide-react";
import { nanoid } from "nanoid";
import { DropdownMenu } from "radix-ui";
import { Link } from "react-router";
import { newVersion } from "~/core/edits/film-state";
import { IconButton } from "~/components/common/button";
import type { DeskVersion } from "../state/desk-types";

/** Shapes that are asked for most. */
const SHAPES = [
  { name: "Vertical 9:16", width: 1080, height: 1920 },
  { name: "Portrait 4:5", width: 1080, height: 1350 },
  { name: "Square 1:1", width: 1080, height: 1080 },
] as const;

interface VersionBarProps {
  versions: readonly DeskVersion[];
  active: DeskVersion;
  onAdd: (version: DeskVersion) => void;
}

/** The film's versions, each with its shape; another can be added. */
export function VersionBar({ versions, active, onAdd }: VersionBarProps) {
  return (
    <nav aria-label="Versions" className="flex items-center gap-1">
      {versions.map((version) => (
        <Link
          key={version.id}
          to={`?version=${version.id}`}
          replace
          aria-current={version.id === active.id}
          className={clsx(
            "flex items-center gap-2 rounded-md px-2.5 py-1.5 text-sm",
            version.id === active.id ? "bg-well font-semibold" : "text-soft hover:bg-well hover:text-ink",
          )}
        >
          <ShapeIcon width={version.width} height={version.height} active={version.id === active.id} />
          {version.name}
        </Link>
      ))}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <IconButton label="Add a version">
            <Plus className="size-4" aria-hidden />
          </IconButton>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="start"
            className="z-40 min-w-56 rounded-md border border-line bg-raised p-1 shadow-lg"
          >
            {SHAPES.map((shape) => (
              <DropdownMenu.Item
                key={shape.name}
                onSelect={() => onAdd(newVersion({ id: nanoid(10), ...shape }))}
                className="flex cursor-default items-center gap-3 rounded-sm px-2 py-1.5 text-sm outline-none data-highlighted:bg-well"
              >
                <ShapeIcon {...shape} active={false} />
                {shape.name}
                <span className="ml-auto text-xs text-soft">
                  {shape.width} × {shape.height}
                </span>
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </nav>
  );
}

function ShapeIcon({ width, height, active }: { width: number; height: number; active: boolean }) {
  const longest = Math.max(width, height);
  return (
    <svg viewBox="0 0 16 16" className="size-4 shrink-0" aria-hidden>
      <rect
        x={8 - (7 * width) / longest}
        y={8 - (7 * height) / longest}
        width={(14 * width) / longest}
        height={(14 * height) / longest}
        rx={1}
        className={active ? "fill-accent" : "fill-soft/60"}
      />
    </svg>
  );
}
