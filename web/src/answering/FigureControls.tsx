import type { MarkOf } from '@doodla/core';
import { markBounds } from '@doodla/core';
import type { FigureRecipe } from '@doodla/core/figures';
import { figureOf } from '@doodla/core/figures';
import { SlidersHorizontal } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { figureIn, figureLook, figureProblem } from '../desk/figures';
import { afterRest } from '../ui/afterRest';
import { classes } from '../ui/classes';
import { t } from '../words';
import { sayMark } from '../words/marks';
import { sheetPlace } from './sheetPlace';
import { FigureFields } from './FigureFields';

/** So long a hand rests before what it has set is told to the class, milliseconds. */
const REST_MS = 250;

interface FigureControlsProps {
  /** As it is seen now. */
  seen: MarkOf<'plot'>;
  /** What may be set. */
  fields: readonly string[];
  scale: number;
  onSet(look: ReturnType<typeof figureLook>): void;
  onProblem(problem: string): void;
}

/** What a class may set of a figure, in a small sheet under it. */
export default function FigureControls({ seen, fields, scale, onSet, onProblem }: FigureControlsProps) {
  /** Where in the window it was opened. */
  const [opened, setOpened] = useState<DOMRect>();
  const [held, setHeld] = useState<FigureRecipe>();
  const rect = markBounds(seen);
  const recipe = held ?? figureOf(seen.recipe);
  const told = useRef({ onSet, onProblem });
  useEffect(() => {
    told.current = { onSet, onProblem };
  });
  useEffect(() => {
    if (!held) return undefined;
    let isOld = false;
    const stop = afterRest(REST_MS, () => {
      figureIn(held).then(
        (made) => {
          if (isOld) return;
          told.current.onSet(figureLook(made));
          setHeld(undefined);
        },
        (error: unknown) => {
          if (!isOld) told.current.onProblem(figureProblem(error));
        },
      );
    });
    return () => {
      isOld = true;
      stop();
    };
  }, [held]);
  if (!recipe) return null;
  return (
    <div
      className={classes('pointer-events-auto absolute flex flex-col items-end', opened ? 'z-20' : 'z-10')}
      style={{ left: (rect.x + rect.width) * scale, top: rect.y * scale, transform: 'translateX(-100%)' }}
    >
      <button
        type="button"
        aria-expanded={opened !== undefined}
        aria-label={t('answers.setFigure', { name: sayMark(seen) })}
        onClick={({ currentTarget }) => setOpened(opened ? undefined : currentTarget.getBoundingClientRect())}
        className="grid size-11 place-items-center rounded-full bg-board text-paper shadow"
      >
        <SlidersHorizontal aria-hidden size={20} />
      </button>
      {opened && (
        <div
          className="absolute max-h-[40vh] w-64 overflow-auto rounded-xl bg-paper p-3 text-ink shadow-xl"
          style={sheetPlace(opened, rect.height * scale, {
            width: window.innerWidth,
            height: window.innerHeight,
          })}
        >
          <FigureFields recipe={recipe} only={fields} onChange={setHeld} />
        </div>
      )}
    </div>
  );
}
