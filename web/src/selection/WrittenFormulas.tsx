import { markBounds, paintMark, toSvgPath } from '@doodla/core';
import type { MarkOf } from '@doodla/core';
import type { FormulaOffer } from '../desk/shapeOffer';
import { takeFormula } from '../desk/writtenFormula';
import type { PageDesk } from '../room/pageDesk';
import { classes } from '../ui/classes';
import { t } from '../words';

/** What a written formula can be, the likeliest first; the one in the place of the ink is pressed. */
export function WrittenFormulas({ offer, desk }: { offer: FormulaOffer; desk: PageDesk }) {
  return (
    <div role="group" aria-label={t('formulas.likest')} className="flex max-w-full flex-wrap">
      {offer.formulas.map((formula, i) => (
        <button
          key={formula.tex}
          type="button"
          aria-label={formula.alt ?? formula.tex}
          title={formula.alt ?? formula.tex}
          aria-pressed={i === offer.now}
          className={classes(
            'grid min-h-12 min-w-12 place-items-center rounded-xl border-2 px-3 py-1',
            i === offer.now ? 'border-chalk bg-board-hover' : 'border-transparent hover:bg-board-light',
          )}
          onClick={() => take(desk, offer, i)}
        >
          <FormulaPicture formula={formula} />
        </button>
      ))}
    </div>
  );
}

function take(desk: PageDesk, offer: FormulaOffer, number: number): void {
  if (number === offer.now) return;
  const made = takeFormula(desk, offer, number);
  if (made !== undefined) desk.selection.select([made]);
}

function FormulaPicture({ formula }: { formula: MarkOf<'formula'> }) {
  const { x, y, width, height } = markBounds(formula);
  return (
    <svg
      viewBox={`${x} ${y} ${width} ${height}`}
      className="h-8 max-w-44"
      style={{ aspectRatio: `${width} / ${height}` }}
      aria-hidden
    >
      {paintMark(formula).map((item, i) =>
        'path' in item ? <path key={i} d={toSvgPath(item.path)} fill="currentColor" /> : null,
      )}
    </svg>
  );
}
