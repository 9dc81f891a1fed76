import { useId, useState } from 'react';

interface SliderProps {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  /** How the value is told. */
  unit?: string;
  /** Told once the hand lets go, so that one pull is one change. */
  onChange(value: number): void;
}

/** A continuous value, on the board. */
export function Slider({ label, value, min, max, step, unit = '', onChange }: SliderProps) {
  const id = useId();
  const [pulled, setPulled] = useState<number>();
  const shown = pulled ?? value;
  const commit = () => {
    if (pulled !== undefined && pulled !== value) onChange(pulled);
    setPulled(undefined);
  };
  return (
    <div>
      <label htmlFor={id} className="flex justify-between text-sm">
        <span>{label}</span>
        <span>
          {Math.round(shown * 100) / 100}
          {unit}
        </span>
      </label>
      <input
        id={id}
        type="range"
        min={min}
        max={max}
        step={step}
        value={shown}
        onChange={(event) => setPulled(Number(event.target.value))}
        onPointerUp={commit}
        onKeyUp={commit}
        onBlur={commit}
        className="h-11 w-full accent-paper"
      />
    </div>
  );
}
