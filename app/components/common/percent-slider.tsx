import { Slider } from "./slider";

interface PercentSliderProps {
  label: string;
  value: number;
  /** Minimum; 0 if left out. */
  min?: number;
  ends: readonly [string, string];
  onChange: (value: number) => void;
}

/** A percentage with labels at both ends. */
export const PercentSlider = ({ label, value, min, ends, onChange }: PercentSliderProps) => (
  <Slider
    label={label}
    value={value}
    min={min}
    max={100}
    ends={ends}
    heading={(shown) => (
      <div className="flex items-baseline justify-between gap-2 text-xs text-soft">
        <span>{label}</span>
        <span>{shown}%</span>
      </div>
    )}
    onChange={onChange}
  />
);
