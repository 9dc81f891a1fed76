import type { PlottedCurve, PlotRecipe } from '@doodla/core/plots';
import { DASHES, MOST_CURVES } from '@doodla/core/plots';
import { Plus, X } from 'lucide-react';
import { FormulaField } from '../typing/FormulaField';
import { Button } from '../ui/Button';
import { t } from '../words';
import { CURVE_COLOURS, newCurve } from './plotForm';

interface CurveRowsProps {
  curves: PlotRecipe['curves'];
  onChange(curves: PlotRecipe['curves']): void;
}

/** The curves of a graph, each with its formula, colour and line. */
export function CurveRows({ curves, onChange }: CurveRowsProps) {
  const change = (at: number, part: Partial<PlottedCurve>) =>
    onChange(curves.map((curve, i) => (i === at ? { ...curve, ...part } : curve)));
  return (
    <div className="grid gap-3">
      {curves.map((curve, i) => (
        <CurveRow
          key={i}
          number={i + 1}
          curve={curve}
          isOnly={curves.length === 1}
          onChange={(part) => change(i, part)}
          onRemove={() => onChange(curves.filter((_, at) => at !== i))}
        />
      ))}
      {curves.length < MOST_CURVES && (
        <Button
          className="justify-self-start"
          icon={<Plus aria-hidden size={18} />}
          onClick={() => onChange([...curves, newCurve(curves)])}
        >
          {t('plots.addCurve')}
        </Button>
      )}
    </div>
  );
}

interface CurveRowProps {
  number: number;
  curve: PlottedCurve;
  isOnly: boolean;
  onChange(part: Partial<PlottedCurve>): void;
  onRemove(): void;
}

function CurveRow({ number, curve: { tex, colour, dash }, isOnly, onChange, onRemove }: CurveRowProps) {
  return (
    <div
      role="group"
      aria-label={t('plots.curve', { number })}
      className="border-s-4 ps-2"
      style={{ borderColor: colour }}
    >
      <FormulaField
        label={t('plots.curve', { number })}
        tex={tex}
        takesFocus={number === 1}
        onType={(next) => onChange({ tex: next })}
        onDone={(form) => form.requestSubmit()}
      />
      <div className="mt-1 flex flex-wrap items-center gap-1">
        <span role="radiogroup" aria-label={t('plots.colourOf', { number })} className="flex">
          {CURVE_COLOURS.map(({ name, hex }) => (
            <button
              key={hex}
              type="button"
              role="radio"
              aria-checked={hex === colour}
              aria-label={t(`colours.${name}`)}
              onClick={() => onChange({ colour: hex })}
              className="grid size-9 place-items-center rounded-full"
            >
              <span
                className={`size-6 rounded-full border-2 border-white ${hex === colour ? 'ring-3 ring-ink' : ''}`}
                style={{ background: hex }}
              />
            </button>
          ))}
        </span>
        <select
          aria-label={t('plots.lineOf', { number })}
          value={dash}
          onChange={({ target }) => onChange({ dash: DASHES[target.selectedIndex]! })}
          className="min-h-9 rounded-lg border-2 border-paper-line bg-white px-2"
        >
          {DASHES.map((each) => (
            <option key={each} value={each}>
              {t(`plots.${each}`)}
            </option>
          ))}
        </select>
        {!isOnly && (
          <button
            type="button"
            aria-label={t('plots.removeCurve', { number })}
            onClick={onRemove}
            className="ms-auto grid size-9 place-items-center rounded-lg hover:bg-paper-dim"
          >
            <X aria-hidden size={18} />
          </button>
        )}
      </div>
    </div>
  );
}
