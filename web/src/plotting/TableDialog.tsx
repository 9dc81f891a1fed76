import type { MarkOf } from '@doodla/core';
import { markBounds } from '@doodla/core';
import { heightsOf, MOST_ROWS, rowCount, statementOf, tableOf } from '@doodla/core/plots';
import type { TableRow } from '@doodla/core/plots';
import type { FormEvent } from 'react';
import { useState } from 'react';
import type { Cells } from '../desk/plotTable';
import { tableMarks } from '../desk/plotTable';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { SelectField } from '../ui/SelectField';
import { language, t } from '../words';
import { LetterSliders } from './LetterSliders';
import { NumberInput } from './NumberInput';
import { FormProblem, lettersFor } from './plotForm';
import { placeBeside } from './placeBeside';
import { problemOf } from './plotDrawing';

interface TableDialogProps {
  formula: MarkOf<'formula'>;
  desk: PageDesk;
  onClose(): void;
}

/** A table of values of a formula. */
export default function TableDialog({ formula, desk, onClose }: TableDialogProps) {
  const { tex } = formula;
  const [range, setRange] = useState({ from: -3, to: 3, step: 1 });
  const [letters, setLetters] = useState(() =>
    lettersFor({ curves: [{ tex, colour: '', dash: 'solid' }], letters: {} }),
  );
  const [cells, setCells] = useState<Cells>('shown');
  const [problem, setProblem] = useState<string>();
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const rows = rowsOf(tex, range, letters);
      const marks = await tableMarks(desk, headOf(tex), rows, cells);
      if (placeBeside(desk, marks, markBounds(formula))) onClose();
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const number = (name: 'from' | 'to' | 'step', label: string) => (
    <NumberInput
      label={label}
      value={range[name]}
      onChange={(value) => {
        setProblem(undefined);
        setRange({ ...range, [name]: value });
      }}
    />
  );
  return (
    <Modal title={t('plots.table')} description={t('plots.tableHow')} open onOpenChange={onClose}>
      <form onSubmit={(event) => void keep(event)} className="grid gap-3">
        {number('from', t('plots.from', { axis: 'x' }))}
        {number('to', t('plots.to', { axis: 'x' }))}
        {number('step', t('plots.step'))}
        <LetterSliders letters={letters} onChange={setLetters} />
        <SelectField<Cells>
          label={t('plots.cells')}
          value={cells}
          options={[
            { value: 'shown', name: t('plots.cellsShown') },
            { value: 'covered', name: t('plots.cellsCovered') },
            { value: 'empty', name: t('plots.cellsEmpty') },
          ]}
          onChange={setCells}
        />
        {problem && <Problem>{problem}</Problem>}
        <Button type="submit" look="main" className="justify-self-end">
          {t('plots.putTable')}
        </Button>
      </form>
    </Modal>
  );
}

interface Steps {
  from: number;
  to: number;
  step: number;
}

/** Throws what `problemOf` says. */
function rowsOf(tex: string, { step, ...range }: Steps, letters: Record<string, number>): TableRow[] {
  const statement = statementOf(tex);
  if (statement.is !== 'height' || statement.relation !== '=') throw new FormProblem(t('plots.noTable'));
  const rows = rowCount(range, step);
  if (Number.isNaN(rows)) throw new FormProblem(t('plots.stepWrong'));
  if (rows > MOST_ROWS) throw new FormProblem(t('plots.tooManyRows', { rows, most: MOST_ROWS }));
  return tableOf(heightsOf(statement.of, letters), range, step, language() === 'de');
}

/** What stands over the values of y: y itself, or the name of the function. */
function headOf(tex: string): TableRow {
  const [, name] = /^\s*([a-zA-Z])\s*(?:\\left)?\(/.exec(tex) ?? [];
  return { x: 'x', y: name === undefined ? 'y' : `${name}(x)` };
}
