import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import type { Size } from "~/core/geometry/box";
import type { EndChoice } from "~/core/path/framing-settings";
import { type DeskShot, followedIn } from "../../model/desk-types";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.keptEnd;

const ENDS: SelectItem[] = [
  { value: "auto", text: t.head, hint: t.headHint },
  { value: "left", text: t.leftEnd },
  { value: "right", text: t.rightEnd },
];

interface KeptEndProps {
  shot: DeskShot;
  /** The largest window. */
  window: Size;
  onChange: (end: EndChoice) => void;
}

/** Which end of a subject wider than the window stays inside. */
export function KeptEnd({ shot, window, onChange }: KeptEndProps) {
  const { keepEnd } = shot.settings;
  const isWider = followedIn(shot)?.track.boxes.some((box) => box && box.width > window.width);
  if (!isWider && keepEnd === "auto") return null;
  return (
    <div className="flex items-center justify-between gap-2">
      <span className="text-xs text-soft">{t.tooWide}</span>
      <SelectMenu
        label={t.keptEndLabel}
        placeholder={t.mixed}
        items={ENDS}
        value={keepEnd}
        onChange={(value) => onChange(value as EndChoice)}
      />
    </div>
  );
}
