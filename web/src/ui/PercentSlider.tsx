import { Slider } from './Slider';

/** A part of one, 0.05 to 1, told in percent. */
export function PercentSlider({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number;
  onChange(value: number): void;
}) {
  return (
    <Slider
      label={label}
      value={Math.round(value * 100)}
      min={5}
      max={100}
      step={5}
      unit=" %"
      onChange={(part) => onChange(part / 100)}
    />
  );
}
