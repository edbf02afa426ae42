import { Button, Hint } from "~/components/common/button";
import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import type { Layer, Passage } from "~/core/composition/layers/layer";
import { timecodeAt } from "~/core/time/timecode";
import { useFrame } from "../picture/use-player";
import { useDesk } from "../state/desk-context";
import { shotAt } from "../state/desk-types";

const PASSAGE_ITEMS: (SelectItem & { value: Passage })[] = [
  { value: "cut", text: "Cut" },
  { value: "fade", text: "Fade" },
  { value: "slide", text: "Slide" },
];

/** When a layer is there, and how it comes and goes. */
export function LayerTime({ layer, onChange }: { layer: Layer; onChange: (layer: Layer) => void }) {
  const { film, player, shots } = useDesk();
  const frame = useFrame(player);
  const range = layer.range ?? { start: 0, end: film.frames };
  const shot = shotAt(shots, frame);
  const from = () => onChange({ ...layer, range: { start: frame, end: Math.max(range.end, frame + 1) } });
  const upTo = () => onChange({ ...layer, range: { start: Math.min(range.start, frame), end: frame + 1 } });
  return (
    <div className="flex flex-col gap-2">
      <div className="flex items-baseline justify-between gap-2 text-xs text-soft">
        <span>When</span>
        <span className="font-mono">
          {layer.range
            ? `${timecodeAt(range.start, film.clock)} to ${timecodeAt(range.end, film.clock)}`
            : "the whole film"}
        </span>
      </div>
      <div className="grid grid-cols-2 gap-2">
        <Hint text="It begins at the frame on screen">
          <Button onClick={from}>Start here</Button>
        </Hint>
        <Hint text="It ends with the frame on screen">
          <Button onClick={upTo}>End here</Button>
        </Hint>
        <Button
          disabled={!shot}
          onClick={() => shot && onChange({ ...layer, range: { start: shot.start, end: shot.end } })}
        >
          This shot
        </Button>
        <Button disabled={layer.range === null} onClick={() => onChange({ ...layer, range: null })}>
          Whole film
        </Button>
      </div>
      {(["arrives", "leaves"] as const).map((side) => (
        <div key={side} className="flex items-center justify-between gap-2">
          <span className="text-xs text-soft">{side === "arrives" ? "Comes in" : "Goes out"}</span>
          <SelectMenu
            label={side === "arrives" ? "Comes in" : "Goes out"}
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
