import { Button, Hint } from "~/components/common/button";
import { type Box, boxIntersection, type Size, wholeOf } from "~/core/geometry/box";
import { isSame } from "~/core/basics/structure";
import { activeArea, LEAST_ACTIVE_SIDE } from "~/core/shots/shot";
import type { DeskShot } from "../../model/desk-types";
import { NumberField } from "~/components/common/number-field";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.activeArea;

interface ActiveAreaProps {
  shot: DeskShot;
  shots: readonly DeskShot[];
  picture: Size;
  onDraw: () => void;
  onChange: (shots: readonly DeskShot[], active: Box | null) => void;
}

/** A shot's letterbox: in figures, drawn on the picture, none, or the same in every shot. */
export function ActiveArea({ shot, shots, picture, onDraw, onChange }: ActiveAreaProps) {
  const area = activeArea(shot, picture);
  const sides = {
    Left: area.x,
    Right: picture.width - area.x - area.width,
    Top: area.y,
    Bottom: picture.height - area.y - area.height,
  };
  const set = (side: keyof typeof sides, value: number) => {
    const bars = { ...sides, [side]: Math.max(0, Math.round(value)) };
    const wanted = {
      x: bars.Left,
      y: bars.Top,
      width: picture.width - bars.Left - bars.Right,
      height: picture.height - bars.Top - bars.Bottom,
    };
    const inside = boxIntersection(wanted, wholeOf(picture));
    if (Math.min(inside.width, inside.height) < LEAST_ACTIVE_SIDE) return;
    onChange([shot], isSame(inside, wholeOf(picture)) ? null : inside);
  };
  const differs = shots.some(({ active }) => !isSame(active, shot.active));
  return (
    <section aria-label={t.letterbox} className="flex flex-col gap-2">
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">{shot.active ? t.letterboxLeftOut : t.noLetterbox}</span>
        <Hint text={t.drawHint}>
          <Button onClick={onDraw}>{shot.active ? t.redraw : t.leaveOut}</Button>
        </Hint>
      </div>
      {shot.active && (
        <>
          <div className="grid grid-cols-2 gap-2">
            {(Object.keys(sides) as (keyof typeof sides)[]).map((side) => (
              <NumberField
                key={side}
                label={t.bar(side)}
                unit={t.px}
                value={sides[side]}
                onCommit={(value) => set(side, value)}
              />
            ))}
          </div>
          <Button onClick={() => onChange([shot], null)}>{t.noneInShot}</Button>
        </>
      )}
      {differs && (
        <Button onClick={() => onChange(shots, shot.active)}>{shot.active ? t.useInAllShots : t.noneInAnyShot}</Button>
      )}
    </section>
  );
}
