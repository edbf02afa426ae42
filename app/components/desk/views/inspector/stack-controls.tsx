import { ArrowDownUp, ArrowLeftRight } from "lucide-react";
import { Button } from "~/components/common/button";
import { ChoiceBar } from "~/components/common/choice-bar";
import { dividedSide, MOST_GAP, type Stack, withSwapped, withPanes } from "~/core/composition/stack";
import type { Size } from "~/core/geometry/box";
import { ColourField } from "../fields/colour-field";
import { PaneContents } from "./pane-contents";
import { PercentSlider } from "~/components/common/percent-slider";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.stackControls;

const COUNTS = [
  { value: "2", name: t.twoPanes, hint: t.twoPanesHint },
  { value: "3", name: t.threePanes, hint: t.threePanesHint },
] as const;

interface StackControlsProps {
  stack: Stack;
  /** Size of the version. */
  frame: Size;
  onChange: (stack: Stack) => void;
}

/** Division of a frame into panes. */
export function StackControls({ stack, frame, onChange }: StackControlsProps) {
  const SwapIcon = dividedSide(frame) === "height" ? ArrowDownUp : ArrowLeftRight;
  return (
    <>
      <ChoiceBar
        label={t.numberOfPanes}
        choices={COUNTS}
        value={stack.places.length === 2 ? "2" : "3"}
        onChange={(count) => onChange(withPanes(stack, Number(count)))}
        className="grid-cols-2"
      />
      <div className="flex flex-wrap gap-2">
        {stack.places.slice(1).map(({ pane }, place) => (
          <Button key={pane} className="grow" onClick={() => onChange(withSwapped(stack, place))}>
            <SwapIcon className="size-3.5" aria-hidden />
            {t.swapAnd(stack.places[place]!.pane + 1, pane + 1)}
          </Button>
        ))}
      </div>
      <PaneContents stack={stack} onChange={onChange} />
      <PercentSlider
        label={t.gap}
        value={Math.round((100 * stack.gap) / MOST_GAP)}
        ends={[t.none, t.wide]}
        onChange={(percent) => onChange({ ...stack, gap: (percent / 100) * MOST_GAP })}
      />
      {stack.gap > 0 && (
        <ColourField
          label={t.colourOfTheGap}
          colour={stack.colour}
          onChange={(colour) => onChange({ ...stack, colour })}
        />
      )}
    </>
  );
}
