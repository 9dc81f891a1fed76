interface NumberFieldProps {
  label: string;
  value: number;
  min: number;
  max: number;
  onChange(value: number): void;
}

/** A small whole number, on paper; what is out of range becomes the nearest that is in it. */
export function NumberField({ label, value, min, max, onChange }: NumberFieldProps) {
  return (
    <label className="flex items-center gap-3">
      <span className="font-bold">{label}</span>
      <input
        type="number"
        min={min}
        max={max}
        value={value}
        onChange={(event) =>
          onChange(Math.min(max, Math.max(min, Math.round(event.target.valueAsNumber) || min)))
        }
        className="min-h-11 w-20 rounded-xl border-2 border-paper-line bg-white px-3"
      />
    </label>
  );
}
