import { Slider } from "~/components/common/slider";

interface PercentSliderProps {
  label: string;
  value: number;
  ends: readonly [string, string];
  onChange: (value: number) => void;
}

/** A share in percent, with what its ends mean. */
export const PercentSlider = ({ label, value, ends, onChange }: PercentSliderProps) => (
  <Slider
    label={label}
    value={value}
    max={100}
    ends={ends}
    heading={(shown) => (
      <div className="flex items-baseline justify-between gap-2 text-xs text-soft">
        <span>{label}</span>
        <span>{shown} %</span>
      </div>
    )}
    onChange={onChange}
  />
);
