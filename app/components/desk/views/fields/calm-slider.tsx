import { Slider } from "~/components/common/slider";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.calmSlider;

interface CalmSliderProps {
  /** Label for screen readers. */
  label: string;
  /** 0 to 100. */
  calm: number;
  onChange: (calm: number) => void;
}

/** How calmly the window moves. */
export function CalmSlider({ label, calm, onChange }: CalmSliderProps) {
  return (
    <Slider
      label={label}
      value={calm}
      max={100}
      ends={[t.staysCloser, t.movesLess]}
      heading={(value) => (
        <div className="flex items-baseline justify-between gap-2 text-xs text-soft">
          <span>{t.calmness}</span>
          <span>{Math.round(value)}</span>
        </div>
      )}
      onChange={onChange}
    />
  );
}
