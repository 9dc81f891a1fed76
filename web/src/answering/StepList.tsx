import type { Mark, Page, TapStep } from '@doodla/core';
import { MOST_FILLED, MOST_STEPS } from '@doodla/core/answers';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { PictureCache } from '../pictures/pictureCache';
import { Button } from '../ui/Button';
import { ColourChoice } from '../ui/ColourChoice';
import { NumberField } from '../ui/NumberField';
import { SelectField } from '../ui/SelectField';
import { TextField } from '../ui/TextField';
import { Tick } from '../ui/Tick';
import { language, t } from '../words';
import { MarkChoice } from './MarkChoice';
import { newStep, setsOf } from './ruleDraft';

const STEPS = {
  show: 'answers.stepShow',
  hide: 'answers.stepHide',
  swap: 'answers.stepSwap',
  move: 'answers.stepMove',
  colour: 'answers.stepColour',
  text: 'answers.stepText',
  count: 'answers.stepCount',
  speak: 'answers.stepSpeak',
  page: 'answers.stepPage',
  play: 'answers.stepPlay',
  tune: 'answers.stepTune',
  pick: 'answers.stepPick',
} as const satisfies Record<TapStep['do'], string>;
const KINDS = Object.keys(STEPS) as TapStep['do'][];
/** Farthest that a step moves something, page units. */
const FAR = 5000;

interface StepListProps {
  steps: readonly TapStep[];
  marks: readonly Mark[];
  pages: readonly { id: Page['id']; name: string; isSound: boolean }[];
  pictures: PictureCache;
  onChange(steps: TapStep[]): void;
}

/** What a tap does, one after another. */
export function StepList({ steps, marks, pages, pictures, onChange }: StepListProps) {
  const [kind, setKind] = useState<TapStep['do']>('show');
  const change = (at: number, step: TapStep) => onChange(steps.map((one, i) => (i === at ? step : one)));
  return (
    <>
      <ol>
        {steps.map((step, i) => (
          <li key={i} className="mb-3 rounded-xl border-2 border-paper-line p-3">
            <div className="flex items-center justify-between gap-2">
              <h4 className="font-bold">
                {i + 1}. {t(STEPS[step.do])}
              </h4>
              <button
                type="button"
                aria-label={t('answers.removeStep', { number: i + 1 })}
                className="grid size-11 place-items-center rounded-xl hover:bg-paper-dim"
                onClick={() => onChange(steps.filter((_, other) => other !== i))}
              >
                <Trash2 aria-hidden size={18} />
              </button>
            </div>
            <StepFields
              step={step}
              marks={marks}
              pages={pages}
              pictures={pictures}
              onChange={(set) => change(i, set)}
            />
          </li>
        ))}
      </ol>
      {steps.length < MOST_STEPS && (
        <div className="flex items-end gap-2">
          <div className="grow">
            <SelectField<TapStep['do']>
              label={t('answers.anotherStep')}
              value={kind}
              options={KINDS.map((value) => ({ value, name: t(STEPS[value]) }))}
              onChange={setKind}
            />
          </div>
          <Button
            className="mb-4"
            icon={<Plus aria-hidden size={18} />}
            onClick={() => onChange([...steps, newStep(kind, language())])}
          >
            {t('answers.addStep')}
          </Button>
        </div>
      )}
    </>
  );
}

interface StepFieldsProps extends Omit<StepListProps, 'steps' | 'onChange'> {
  step: TapStep;
  onChange(step: TapStep): void;
}

function StepFields({ step, marks, pages, pictures, onChange }: StepFieldsProps) {
  const texts = marks.filter((mark) => mark.kind === 'text');
  return (
    <>
      {'marks' in step && (
        <MarkChoice
          label={t('answers.whichMarks')}
          marks={marks}
          chosen={step.marks}
          pictures={pictures}
          onChange={(chosen) => onChange({ ...step, marks: chosen })}
        />
      )}
      {'mark' in step && (
        <MarkChoice
          label={t('answers.whichText')}
          marks={texts}
          chosen={step.mark === '' ? [] : [step.mark]}
          single
          pictures={pictures}
          onChange={([mark = '']) => onChange({ ...step, mark })}
        />
      )}
      {step.do === 'move' && (
        <div className="flex flex-wrap gap-4">
          <NumberField
            label={t('answers.toTheRight')}
            value={step.dx}
            min={-FAR}
            max={FAR}
            onChange={(dx) => onChange({ ...step, dx })}
          />
          <NumberField
            label={t('answers.down')}
            value={step.dy}
            min={-FAR}
            max={FAR}
            onChange={(dy) => onChange({ ...step, dy })}
          />
        </div>
      )}
      {step.do === 'colour' && (
        <ColourChoice colour={step.colour} onChange={(colour) => onChange({ ...step, colour })} />
      )}
      {step.do === 'count' && (
        <NumberField
          label={t('answers.soMuchMore')}
          value={step.by}
          min={-1000}
          max={1000}
          onChange={(by) => onChange({ ...step, by })}
        />
      )}
      {'text' in step && (
        <TextField
          label={t('answers.words')}
          value={step.text}
          maxLength={MOST_FILLED}
          onChange={(event) => onChange({ ...step, text: event.target.value })}
        />
      )}
      {'page' in step && (
        <SelectField
          label={t(step.do === 'page' ? 'answers.toPage' : 'answers.whichSound')}
          value={step.page}
          hint={step.do === 'play' ? t('answers.soundHint') : undefined}
          options={[
            { value: '', name: t(step.do === 'page' ? 'answers.choosePage' : 'answers.chooseSound') },
            ...pages
              .filter(({ isSound }) => step.do === 'page' || isSound)
              .map(({ id, name }) => ({ value: id, name })),
          ]}
          onChange={(page) => onChange({ ...step, page })}
        />
      )}
      {step.do === 'tune' && (
        <TextField
          label={t('figures.f_notes')}
          value={step.notes}
          maxLength={MOST_FILLED}
          onChange={(event) => onChange({ ...step, notes: event.target.value })}
        />
      )}
      {step.do === 'pick' && (
        <>
          <MarkChoice
            label={t('answers.pickedFrom')}
            marks={marks}
            chosen={step.sets.flat()}
            pictures={pictures}
            onChange={(chosen) => onChange({ ...step, sets: setsOf(chosen, marks) })}
          />
          <Tick checked={!step.again} onChange={(fair) => onChange({ ...step, again: !fair })}>
            {t('answers.nobodyTwice')}
          </Tick>
        </>
      )}
    </>
  );
}
