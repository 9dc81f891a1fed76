import { useState } from 'react';
import { numberIn } from './plotForm';

interface NumberInputProps {
  label: string;
  value: number;
  onChange(value: number): void;
}

/** Any number, on paper; while what is typed is none, the last one holds. */
export function NumberInput({ label, value, onChange }: NumberInputProps) {
  const [typed, setTyped] = useState<string>();
  const isNone = typed !== undefined && numberIn(typed) === undefined;
  return (
    <label className="flex items-center justify-between gap-2">
      {label}
      <input
        inputMode="decimal"
        value={typed ?? String(value)}
        aria-invalid={isNone}
        onChange={({ target }) => {
          setTyped(target.value);
          const number = numberIn(target.value);
          if (number !== undefined) onChange(number);
        }}
        onBlur={() => setTyped(undefined)}
        className="min-h-11 w-24 rounded-xl border-2 border-paper-line bg-white px-3 aria-invalid:border-alarm"
      />
    </label>
  );
}
