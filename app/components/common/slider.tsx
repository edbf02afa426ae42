import { Slider as Primitive } from "radix-ui";
import { type ReactNode, useState } from "react";

interface SliderProps {
  label: string;
  value: number;
  /** Minimum; 0 if left out. */
  min?: number;
  max: number;
  /** Labels of both ends. */
  ends: readonly [string, string];
  /** Heading above the slider, given the present value or, during a drag, the one it would be. */
  heading: (value: number) => ReactNode;
  onChange: (value: number) => void;
}

/** A slider whose value takes effect when it is let go. */
export function Slider({ label, value, min = 0, max, ends, heading, onChange }: SliderProps) {
  const [dragged, setDragged] = useState<number | null>(null);
  return (
    <div>
      {heading(dragged ?? value)}
      <Primitive.Root
        value={[dragged ?? value]}
        min={min}
        max={max}
        step={1}
        onValueChange={([next]) => setDragged(next!)}
        onValueCommit={([next]) => {
          setDragged(null);
          if (next !== value) onChange(next!);
        }}
        className="relative flex h-5 items-center"
      >
        <Primitive.Track className="relative h-1.5 grow rounded-full bg-well">
          <Primitive.Range className="absolute h-full rounded-full bg-accent" />
        </Primitive.Track>
        <Primitive.Thumb aria-label={label} className="block size-4 rounded-full border-2 border-accent bg-raised" />
      </Primitive.Root>
      <div className="flex justify-between text-xs text-soft">
        <span>{ends[0]}</span>
        <span>{ends[1]}</span>
      </div>
    </div>
  );
}
