import { CornerDownRight, CircleSlash2, Merge, Scissors } from "lucide-react";
import { IconButton } from "~/components/common/button";
import type { DeskShot } from "../../model/desk-types";
import { useShortcutText } from "../../hooks/use-shortcut-keys";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.shotTools;

interface ShotToolsProps {
  shot: DeskShot | undefined;
  /** Whether the shot can be split at the playhead. */
  canSplit: boolean;
  last: boolean;
  onSplit: (kind: "cut" | "switch") => void;
  onJoin: () => void;
  onExclude: () => void;
}

/** Splits, joins and leaves out shots at the playhead. */
export function ShotTools({ shot, canSplit, last, onSplit, onJoin, onExclude }: ShotToolsProps) {
  const keysOf = useShortcutText();
  const icon = "size-4";
  return (
    <div className="flex items-center gap-1" role="group" aria-label={t.shots}>
      <IconButton
        label={t.splitTheShotHere}
        shortcut={keysOf("split")}
        disabled={!canSplit}
        onClick={() => onSplit("cut")}
      >
        <Scissors className={icon} aria-hidden />
      </IconButton>
      <IconButton
        label={t.switchHere}
        shortcut={keysOf("switch")}
        disabled={!canSplit}
        onClick={() => onSplit("switch")}
      >
        <CornerDownRight className={icon} aria-hidden />
      </IconButton>
      <IconButton label={t.joinWithTheNextShot} shortcut={keysOf("join")} disabled={!shot || last} onClick={onJoin}>
        <Merge className={icon} aria-hidden />
      </IconButton>
      <IconButton
        label={shot?.excluded ? t.bringThisShotBack : t.leaveThisShotOut}
        shortcut={keysOf("exclude")}
        disabled={!shot}
        aria-pressed={shot?.excluded ?? false}
        onClick={onExclude}
        className="aria-pressed:bg-accent-wash aria-pressed:text-ink"
      >
        <CircleSlash2 className={icon} aria-hidden />
      </IconButton>
    </div>
  );
}
