import { Slider } from "./slider";

interface PercentSliderProps {
  label: string;
  value: number;
  /** The least; 0 if left out. */
  min?: number;
  ends: readonly [string, string];
  onChange: (value: number) => void;
}

/** A share in percent, with what its ends mean. */
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
