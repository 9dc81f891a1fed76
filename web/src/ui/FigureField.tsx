import { ImpossibleFigure } from '@doodla/core/measure';
import { useEffect, useId, useState } from 'react';
import { t } from '../words';

interface FigureFieldProps {
  label: string;
  /** As it is written. */
  value: string;
  unit: string;
  /** What is said beside it. */
  note?: string;
  /** Takes a number that was typed. Throws ImpossibleFigure where there can be no such figure. */
  onChange(value: number): void;
}

/** A length or angle that can be typed, on the board; what cannot be is said, and stays to be put right. */
export function FigureField({ label, value, unit, note, onChange }: FigureFieldProps) {
  const id = useId();
  const [typed, setTyped] = useState(value);
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    setTyped(value);
    setProblem(undefined);
  }, [value]);
  const take = () => {
    if (typed === value) return setProblem(undefined);
    try {
      const number = Number(typed.trim().replace(',', '.'));
      if (typed.trim() === '' || !Number.isFinite(number)) throw new ImpossibleFigure();
      onChange(number);
      setProblem(undefined);
    } catch (error) {
      if (!(error instanceof ImpossibleFigure)) throw error;
      setProblem(t('measures.impossible'));
    }
  };
  return (
    <div className="text-sm">
      <div className="flex items-center gap-2">
        <label htmlFor={id} className="min-w-10 font-bold">
          {label}
        </label>
        <input
          id={id}
          inputMode="decimal"
          value={typed}
          aria-invalid={problem !== undefined}
          aria-describedby={problem === undefined ? undefined : `${id}-problem`}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={take}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === 'Enter') take();
          }}
          className="min-h-11 w-20 rounded-lg border-2 border-board-line bg-paper px-2 text-end text-ink"
        />
        <span>{unit}</span>
        {note !== undefined && <span className="ms-auto text-end">{note}</span>}
      </div>
      {problem !== undefined && (
        <p id={`${id}-problem`} role="alert" className="mt-1 font-bold text-chalk">
          {problem}
        </p>
      )}
    </div>
  );
}
