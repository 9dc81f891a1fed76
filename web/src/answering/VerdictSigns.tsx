import type { Mark } from '@doodla/core';
import { markBounds } from '@doodla/core';
import type { AnsweredPage } from '@doodla/core/answers';
import { chosenOf, itemsOf, resultOf } from '@doodla/core/answers';
import { Check, X } from 'lucide-react';
import { t } from '../words';

interface VerdictSignsProps {
  page: AnsweredPage;
  originals: readonly Mark[];
  scale: number;
}

/** Says of every answer on the page whether it is right, by a sign and a word for those who do not see it. */
export function VerdictSigns({ page, originals, scale }: VerdictSignsProps) {
  return itemsOf(originals, page.original).flatMap((item) => {
    const { state } = resultOf(item, page.now);
    if (state === 'open' || item.kind === 'pair' || item.kind === 'line') return [];
    const marks =
      item.kind === 'thing'
        ? [item.thing]
        : item.kind === 'choice'
          ? [chosenOf(item, page.now)!]
          : item.fields.slice(-1);
    return marks.map((mark) => {
      const rect = markBounds(page.now(mark.id) ?? mark);
      const Sign = state === 'right' ? Check : X;
      return (
        <span
          key={`${item.id} ${mark.id}`}
          role="img"
          aria-label={`${item.name}: ${t(state === 'right' ? 'answers.right' : 'answers.notRight')}`}
          className={`absolute z-10 grid size-7 -translate-1/2 place-items-center rounded-full border-2 shadow ${state === 'right' ? 'border-ink bg-white text-ink' : 'border-white bg-ink text-white'}`}
          style={{ left: (rect.x + rect.width) * scale, top: rect.y * scale }}
        >
          <Sign aria-hidden size={16} />
        </span>
      );
    });
  });
}
