import { useId } from 'react';
import { t } from '../words';
import { NumberInput } from './NumberInput';

interface LetterSlidersProps {
  letters: Readonly<Record<string, number>>;
  onChange(letters: Record<string, number>): void;
}

const RANGE = { min: -10, max: 10, step: 0.1 };

/** A slider and a number for each letter that stands for one; the graph follows while it is pulled. */
export function LetterSliders({ letters, onChange }: LetterSlidersProps) {
  const id = useId();
  const set = (name: string, value: number) => onChange({ ...letters, [name]: value });
  return Object.entries(letters).map(([name, value]) => (
    <div key={name} className="flex items-center gap-3">
      <label htmlFor={`${id}-${name}`} className="min-w-6 text-xl italic">
        {name}
      </label>
      <input
        id={`${id}-${name}`}
        type="range"
        {...RANGE}
        value={Math.min(RANGE.max, Math.max(RANGE.min, value))}
        onChange={({ target }) => set(name, Number(target.value))}
        className="h-11 min-w-0 flex-1 accent-board"
      />
      <NumberInput
        label={t('plots.letter', { letter: name })}
        value={value}
        onChange={(next) => set(name, next)}
      />
    </div>
  ));
}
