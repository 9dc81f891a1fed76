import type { MarkOf } from '@doodla/core';
import type { ChartRecipe } from '@doodla/core/charts';
import { CHART_KINDS } from '@doodla/core/charts';
import { useState } from 'react';
import type { ChartForm, MadeChart } from '../desk/charts';
import { changeChart, chartFormOf, chartIn, chartProblem, keptChart, newChart } from '../desk/charts';
import type { PageDesk } from '../room/pageDesk';
import { placeMarks } from '../shelf/placeMarks';
import { TypedDraft } from '../typing/typedDraft';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { SelectField } from '../ui/SelectField';
import { t } from '../words';
import { DrawingView } from './DrawingView';
import { useDrawing, useKeeping } from './useDrawing';

interface ChartDialogProps {
  mark: MarkOf<'plot'> | undefined;
  desk: PageDesk;
  onClose(): void;
}

/** A chart of a small table. */
export default function ChartDialog({ mark, desk, onClose }: ChartDialogProps) {
  const [draft] = useState(() => new TypedDraft('chart', mark?.id));
  const [form, setForm] = useState<ChartForm>(
    () => keptChart(draft.get()) ?? (mark && chartFormOf(mark.recipe)) ?? { chart: 'bars', data: '' },
  );
  const put = (made: MadeChart) => putOnPage(desk, mark, made);
  const { made, problem } = useDrawing(form, chartIn, chartProblem);
  const { refused, keep } = useKeeping({ form, draft, draw: chartIn, problemOf: chartProblem, put, onClose });
  const change = (part: Partial<ChartForm>) => {
    const next = { ...form, ...part };
    setForm(next);
    draft.keep(JSON.stringify(next));
  };
  const shown = refused ?? (form.data.trim() === '' ? undefined : problem);
  return (
    <Modal
      title={t(mark ? 'charts.change' : 'charts.title')}
      description={t('charts.how')}
      open
      wide
      onOpenChange={onClose}
    >
      <form onSubmit={keep} className="grid gap-4 md:grid-cols-2">
        <div
          className="aspect-4/3 w-full overflow-hidden rounded-xl border-2 border-paper-line bg-white"
          data-testid="chart-preview"
        >
          {made && <DrawingView drawing={made.drawing} />}
        </div>
        <div className="grid content-start gap-1">
          <SelectField<ChartRecipe['chart']>
            label={t('charts.kind')}
            value={form.chart}
            options={CHART_KINDS.map((kind) => ({ value: kind, name: t(`charts.${kind}`) }))}
            onChange={(chart) => change({ chart })}
          />
          <label className="grid gap-1 font-bold">
            {t('charts.data')}
            <textarea
              rows={8}
              value={form.data}
              placeholder={t('charts.example')}
              onChange={({ target }) => change({ data: target.value })}
              className="rounded-xl border-2 border-paper-line bg-white px-3 py-2 font-mono font-normal"
            />
          </label>
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
function putOnPage(desk: PageDesk, mark: ChartDialogProps['mark'], made: MadeChart): boolean {
  if (mark) return changeChart(desk, mark, made);
  const chart = newChart(desk, made);
  return chart !== undefined && placeMarks(desk, [chart], desk.middle());
}
