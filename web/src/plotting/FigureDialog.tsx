import type { MarkOf } from '@doodla/core';
import type { FigureId, FigureRecipe } from '@doodla/core/figures';
import {
  FIGURE_IDS,
  figureOf,
  FIGURES,
  figureText,
  newFigure,
  pitchesOf,
  SUBJECTS,
} from '@doodla/core/figures';
import { Volume2 } from 'lucide-react';
import { useState } from 'react';
import { FigureFields } from '../answering/FigureFields';
import { playTune } from '../answering/tune';
import type { MadeFigure } from '../desk/figures';
import { figureIn, figureLook, figureProblem, newFigureMark } from '../desk/figures';
import { changeBox } from '../desk/plots';
import type { PageDesk } from '../room/pageDesk';
import { placeMarks } from '../shelf/placeMarks';
import { TypedDraft } from '../typing/typedDraft';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { t } from '../words';
import { sayFigure, saySubject } from '../words/figures';
import { DrawingView } from './DrawingView';
import { useDrawing, useKeeping } from './useDrawing';

interface FigureDialogProps {
  mark: MarkOf<'plot'> | undefined;
  desk: PageDesk;
  onClose(): void;
}

/** A drawing of a subject, such as a clock, a circuit symbol or a staff. */
export default function FigureDialog({ mark, desk, onClose }: FigureDialogProps) {
  const [draft] = useState(() => new TypedDraft('figure', mark?.id));
  const [form, setForm] = useState<FigureRecipe>(
    () => figureOf(draft.get() ?? '') ?? figureOf(mark?.recipe ?? '') ?? newFigure('clock'),
  );
  const put = (made: MadeFigure) => putOnPage(desk, mark, made);
  const { made, problem } = useDrawing(form, figureIn, figureProblem);
  const { refused, keep } = useKeeping({
    ...{ form, draft, draw: figureIn, problemOf: figureProblem, put, onClose },
  });
  const change = (next: FigureRecipe) => {
    setForm(next);
    draft.keep(figureText(next));
  };
  const notes =
    form.figure === 'staff' ? form.values.notes : form.figure === 'keyboard' ? form.values.marked : '';
  const shown = refused ?? problem;
  return (
    <Modal
      title={t(mark ? 'figures.change' : 'figures.title')}
      description={t('figures.how')}
      open
      wide
      onOpenChange={onClose}
    >
      <form onSubmit={keep} className="grid gap-4 md:grid-cols-2">
        <div
          className="aspect-4/3 w-full overflow-hidden rounded-xl border-2 border-paper-line bg-white p-2"
          data-testid="figure-preview"
        >
          {made && <DrawingView drawing={made.drawing} />}
        </div>
        <div className="grid content-start gap-1">
          {!mark && (
            <label className="mb-2 block font-bold">
              {t('figures.which')}
              <select
                value={form.figure}
                onChange={({ target }) => change(newFigure(target.value as FigureId))}
                className="mt-1 min-h-11 w-full rounded-xl border-2 border-paper-line bg-white px-3 font-normal"
              >
                {SUBJECTS.map((subject) => (
                  <optgroup key={subject} label={saySubject(subject)}>
                    {FIGURE_IDS.filter((id) => FIGURES[id].subject === subject).map((id) => (
                      <option key={id} value={id}>
                        {sayFigure(id)}
                      </option>
                    ))}
                  </optgroup>
                ))}
              </select>
            </label>
          )}
          <FigureFields recipe={form} onChange={change} />
          {notes !== '' && !problem && (
            <Button
              icon={<Volume2 aria-hidden size={18} />}
              onClick={() => playTune(pitchesOf(String(notes)))}
            >
              {t('figures.hear')}
            </Button>
          )}
          {shown && <Problem>{shown}</Problem>}
        </div>
        <Button type="submit" look="main" className="sticky bottom-0 justify-self-end md:col-span-2">
          {t(mark ? 'plots.keep' : 'plots.put')}
        </Button>
      </form>
    </Modal>
  );
}

/** Returns whether it is there. */
function putOnPage(desk: PageDesk, mark: FigureDialogProps['mark'], made: MadeFigure): boolean {
  if (mark) return changeBox(desk, mark, figureLook(made));
  const figure = newFigureMark(desk, made);
  return figure !== undefined && placeMarks(desk, [figure], desk.middle());
}
