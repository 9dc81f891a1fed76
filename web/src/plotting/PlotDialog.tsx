import type { MarkOf } from '@doodla/core';
import { FEATURES } from '@doodla/core/plots';
import { ZoomIn, ZoomOut } from 'lucide-react';
import { useMemo, useState } from 'react';
import { USUAL_WINDOW } from '../desk/plots';
import type { PageDesk } from '../room/pageDesk';
import { TypedDraft } from '../typing/typedDraft';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { t } from '../words';
import { CurveRows } from './CurveRows';
import { LetterSliders } from './LetterSliders';
import { NumberInput } from './NumberInput';
import type { PlotForm } from './plotForm';
import { formOf, keptForm, lettersFor, newForm } from './plotForm';
import { PlotPreview } from './PlotPreview';
import { zoomed } from './plotWindow';
import { drawForm, problemOf } from './plotDrawing';
import { useDrawing, useKeeping } from './useDrawing';
import { useLivePlot } from './useLivePlot';

interface PlotDialogProps {
  mark: MarkOf<'plot'> | undefined;
  /** What it is to be the graph of. */
  formula: MarkOf<'formula'> | undefined;
  desk: PageDesk;
  onClose(): void;
}

/** A graph: its curves, what is in sight of them, and what is shown beside them. */
export default function PlotDialog({ mark, formula, desk, onClose }: PlotDialogProps) {
  const [draft] = useState(() => new TypedDraft('plot', mark?.id ?? formula?.tex));
  const [form, setForm] = useState(
    () => keptForm(draft.get()) ?? (mark && formOf(mark.recipe)) ?? newForm(formula?.tex),
  );
  const letters = useMemo(() => lettersFor(form), [form]);
  const whole = useMemo(() => ({ ...form, letters }), [form, letters]);
  const { made, problem } = useDrawing(whole, drawForm, problemOf);
  const put = useLivePlot(desk, { mark, formula }, made, draft);
  const { refused, keep } = useKeeping({ form: whole, draft, draw: drawForm, problemOf, put, onClose });
  const change = (part: Partial<PlotForm>) => {
    const next = { ...whole, ...part };
    setForm(next);
    draft.keep(JSON.stringify(next));
  };
  // Nothing typed yet is nothing wrong.
  const isEmpty = form.points.trim() === '' && form.curves.every((curve) => curve.tex.trim() === '');
  const shown = refused ?? (isEmpty ? undefined : problem);
  return (
    <Modal
      title={t(mark ? 'plots.change' : 'plots.title')}
      description={t('plots.how')}
      open
      wide
      onOpenChange={onClose}
    >
      <form onSubmit={keep} className="grid gap-4 md:grid-cols-2">
        <div className="grid content-start gap-3">
          <PlotPreview
            drawing={made?.drawing}
            window={form.window}
            onChange={(window) => change({ window })}
          />
          <WindowButtons form={form} onChange={change} />
          <LetterSliders letters={letters} onChange={(next) => change({ letters: next })} />
        </div>
        <div className="grid content-start gap-3">
          <CurveRows curves={form.curves} onChange={(curves) => change({ curves })} />
          {shown && <Problem>{shown}</Problem>}
          <Beside form={form} onChange={change} />
        </div>
        <Button type="submit" look="main" className="sticky bottom-0 justify-self-end md:col-span-2">
          {t(mark ? 'plots.keep' : 'plots.put')}
        </Button>
      </form>
    </Modal>
  );
}

interface PartProps {
  form: PlotForm;
  onChange(part: Partial<PlotForm>): void;
}

/** What is in sight, by buttons and as numbers. */
function WindowButtons({ form: { window }, onChange }: PartProps) {
  const zoom = (factor: number) => onChange({ window: zoomed(window, factor) });
  return (
    <div className="grid gap-2">
      <div className="flex flex-wrap gap-2">
        <Button icon={<ZoomIn aria-hidden size={18} />} onClick={() => zoom(1 / 1.25)}>
          {t('plots.closer')}
        </Button>
        <Button icon={<ZoomOut aria-hidden size={18} />} onClick={() => zoom(1.25)}>
          {t('plots.farther')}
        </Button>
        <Button onClick={() => onChange({ window: USUAL_WINDOW })}>{t('plots.usual')}</Button>
      </div>
      <div className="grid grid-cols-[repeat(auto-fit,minmax(9rem,1fr))] gap-2">
        {(['x', 'y'] as const).flatMap((axis) =>
          (['from', 'to'] as const).map((end) => (
            <NumberInput
              key={axis + end}
              label={t(`plots.${end}`, { axis })}
              value={window[axis][end]}
              onChange={(value) =>
                onChange({ window: { ...window, [axis]: { ...window[axis], [end]: value } } })
              }
            />
          )),
        )}
      </div>
    </div>
  );
}

/** What is shown beside the curves. */
function Beside({ form: { shown, inPi, points }, onChange }: PartProps) {
  const tick = (name: string, checked: boolean, set: (on: boolean) => void) => (
    <label key={name} className="flex min-h-11 items-center gap-3">
      <input
        type="checkbox"
        className="size-5"
        checked={checked}
        onChange={({ target }) => set(target.checked)}
      />
      {name}
    </label>
  );
  return (
    <>
      <fieldset>
        <legend className="font-bold">{t('plots.shown')}</legend>
        {FEATURES.map((feature) =>
          tick(t(`plots.${feature}`), shown.includes(feature), (on) =>
            onChange({ shown: on ? [...shown, feature] : shown.filter((each) => each !== feature) }),
          ),
        )}
        {tick(t('plots.inPi'), inPi, (on) => onChange({ inPi: on }))}
      </fieldset>
      <label className="grid gap-1 font-bold">
        {t('plots.points')}
        <textarea
          rows={3}
          value={points}
          onChange={({ target }) => onChange({ points: target.value })}
          className="rounded-xl border-2 border-paper-line bg-white px-3 py-2 font-mono font-normal"
        />
      </label>
    </>
  );
}
