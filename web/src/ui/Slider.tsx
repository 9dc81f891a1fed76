import { useId } from 'react';

interface SliderProps {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  /** How the value is told. */
  unit?: string;
  onChange(value: number): void;
}

/** A continuous value, on the board. */
export function Slider({ label, value, min, max, step, unit = '', onChange }: SliderProps) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="flex justify-between text-sm">
        <span>{label}</span>
        <span>
          {Math.round(value * 100) / 100}
          {unit}
        </span>
      </label>
      <input
        id={id}
        type="range"
        min={min}
        max={max}
        step={step}
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
        className="h-11 w-full accent-chalk"
      />
    </div>
  );
}
