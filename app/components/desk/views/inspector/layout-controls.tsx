import { ChoiceBar } from "~/components/common/choice-bar";
import { Slider } from "~/components/common/slider";
import { FILL, type Layout, paneBox, WHOLE } from "~/core/composition/layout";
import { STACK } from "~/core/composition/stack";
import type { Size } from "~/core/geometry/box";
import { largestWindow } from "~/core/geometry/crop-window";
import type { FramingChange, FramingSettings } from "~/core/path/framing-settings";
import { BackdropControls } from "./backdrop-controls";
import { EdgeControls } from "./edge-controls";
import { PercentSlider } from "~/components/common/percent-slider";
import { StackControls } from "./stack-controls";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.layoutControls;

const LAYOUTS = [
  { value: "fill", name: t.fill, hint: t.fillHint },
  { value: "whole", name: t.whole, hint: t.wholeHint },
  { value: "stack", name: t.stack, hint: t.stackHint },
] as const;
const FIRST: Record<Layout["kind"], Layout> = { fill: FILL, whole: WHOLE, stack: STACK };

interface LayoutControlsProps {
  /** The settings; of several shots, those they share. */
  settings: Pick<Partial<FramingSettings>, "layout" | "backdrop" | "edge">;
  /** The picture area without letterbox. */
  area: Size;
  /** Size of the version. */
  frame: Size;
  onChange: (change: FramingChange) => void;
}

/** How a shot fills its frame, and the backdrop where it does not. */
export function LayoutControls({ settings: { layout, backdrop, edge }, area, frame, onChange }: LayoutControlsProps) {
  return (
    <section aria-label={t.layout} className="flex flex-col gap-2">
      <span className="text-xs text-soft">{t.layout}</span>
      <ChoiceBar
        label={t.layoutHint}
        choices={LAYOUTS}
        value={layout?.kind ?? null}
        onChange={(kind) => onChange({ layout: FIRST[kind] })}
        className="grid-cols-3"
      />
      {layout?.kind === "whole" && (
        <WholeControls
          layout={layout}
          area={area}
          frame={frame}
          onChange={(changed) => onChange({ layout: changed })}
        />
      )}
      {layout?.kind === "stack" && (
        <StackControls stack={layout} frame={frame} onChange={(changed) => onChange({ layout: changed })} />
      )}
      {layout?.kind === "whole" && edge && (
        <EdgeControls edge={edge} onChange={(changed) => onChange({ edge: changed })} />
      )}
      {layout?.kind === "whole" && backdrop && (
        <BackdropControls backdrop={backdrop} onChange={(changed) => onChange({ backdrop: changed })} />
      )}
    </section>
  );
}

interface WholeControlsProps {
  layout: Extract<Layout, { kind: "whole" }>;
  area: Size;
  frame: Size;
  onChange: (layout: Layout) => void;
}

function WholeControls({ layout, area, frame, onChange }: WholeControlsProps) {
  /** Size and scale of what an amount shows. */
  const figures = (amount: number): string => {
    const pane = paneBox({ ...layout, amount }, area, frame);
    const window = largestWindow(area, pane);
    const share = (window.width * window.height) / (area.width * area.height);
    return t.ofItItsSize(share, pane.height / window.height);
  };
  const whole = paneBox({ ...layout, amount: 1 }, area, frame);
  const isAbove = whole.height < frame.height;
  return (
    <>
      <Slider
        label={t.amountLabel}
        value={Math.round(100 * layout.amount)}
        max={100}
        ends={[t.fillsTheFrame, t.allOfIt]}
        heading={(value) => (
          <div className="flex items-baseline justify-between gap-2 text-xs text-soft">
            <span>{t.howMuch}</span>
            <span>{figures(value / 100)}</span>
          </div>
        )}
        onChange={(value) => onChange({ ...layout, amount: value / 100 })}
      />
      <PercentSlider
        label={t.place}
        value={Math.round(100 * layout.place)}
        ends={isAbove ? ["top", "bottom"] : ["left", "right"]}
        onChange={(value) => onChange({ ...layout, place: value / 100 })}
      />
    </>
  );
}
