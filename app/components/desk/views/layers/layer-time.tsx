import { Button, Hint } from "~/components/common/button";
import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import type { Layer, Passage } from "~/core/composition/layers/layer";
import { timecodeAt } from "~/core/time/timecode";
import { useFrame } from "../../hooks/use-player";
import { useDesk } from "../../hooks/use-desk";
import { shotAt } from "../../model/desk-types";
import { layersTexts } from "~/texts/layers";

const t = layersTexts.layerTime;

const PASSAGE_ITEMS: (SelectItem & { value: Passage })[] = [
  { value: "cut", text: t.cut },
  { value: "fade", text: t.fade },
  { value: "slide", text: t.slide },
];

/** When a layer is visible, and how it appears and disappears. */
export function LayerTime({ layer, onChange }: { layer: Layer; onChange: (layer: Layer) => void }) {
  const { film, player, shots } = useDesk("film", "player", "shots");
  const frame = useFrame(player);
  const range = layer.range ?? { start: 0, end: film.frames };
  const shot = shotAt(shots, frame);
  const from = () => onChange({ ...layer, range: { start: frame, end: Math.max(range.end, frame + 1) } });
  const upTo = () => onChange({ ...layer, range: { start: Math.min(range.start, frame), end: frame + 1 } });
  return (
    <div className="flex flex-col gap-2">
      <div className="flex items-baseline justify-between gap-2 text-xs text-soft">
        <span>{t.when}</span>
        <span className="font-mono">
          {layer.range ? t.to(timecodeAt(range.start, film.clock), timecodeAt(range.end, film.clock)) : t.theWholeFilm}
        </span>
      </div>
      <div className="grid grid-cols-2 gap-2">
        <Hint text={t.itBeginsAtTheFrame}>
          <Button onClick={from}>{t.startHere}</Button>
        </Hint>
        <Hint text={t.itEndsWithTheFrame}>
          <Button onClick={upTo}>{t.endHere}</Button>
        </Hint>
        <Button
          disabled={!shot}
          onClick={() => shot && onChange({ ...layer, range: { start: shot.start, end: shot.end } })}
        >
          {t.thisShot}
        </Button>
        <Button disabled={layer.range === null} onClick={() => onChange({ ...layer, range: null })}>
          {t.wholeFilm}
        </Button>
      </div>
      {(["arrives", "leaves"] as const).map((side) => (
        <div key={side} className="flex items-center justify-between gap-2">
          <span className="text-xs text-soft">{side === "arrives" ? t.comesIn : t.goesOut}</span>
          <SelectMenu
            label={side === "arrives" ? t.comesIn : t.goesOut}
            placeholder=""
            items={PASSAGE_ITEMS}
            value={layer[side]}
            onChange={(passage) => onChange({ ...layer, [side]: passage as Passage })}
          />
        </div>
      ))}
    </div>
  );
}
