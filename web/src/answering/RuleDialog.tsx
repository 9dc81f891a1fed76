import type { Mark, MarkOf } from '@doodla/core';
import { figureOf } from '@doodla/core/figures';
import { useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { SelectField } from '../ui/SelectField';
import { TextField } from '../ui/TextField';
import { Tick } from '../ui/Tick';
import { t } from '../words';
import { sayField } from '../words/figures';
import { sayMark } from '../words/marks';
import { MarkChoice } from './MarkChoice';
import type { DraftProblem, MoveChoice, RuleDraft } from './ruleDraft';
import { draftOf, keepingRule, ruleOf } from './ruleDraft';
import { StepList } from './StepList';

const MOVES = {
  not: 'answers.movesNot',
  freely: 'answers.movesFreely',
  inside: 'answers.movesInside',
  along: 'answers.movesAlong',
  turning: 'answers.movesTurning',
} as const satisfies Record<MoveChoice, string>;
const HELD = {
  inside: 'answers.whichArea',
  along: 'answers.whichLine',
  turning: 'answers.whichPoint',
} as const;
const TAP_IS = {
  neither: 'answers.tapIsNeither',
  right: 'answers.tapIsRight',
  wrong: 'answers.tapIsWrong',
} as const;
const FILLS = {
  not: 'answers.fillNot',
  words: 'answers.fillWords',
  number: 'answers.fillNumber',
  anything: 'answers.fillAnything',
} as const;
const PROBLEMS = {
  'nothing-chosen': 'answers.stepIncomplete',
  'no-answer': 'answers.noAnswer',
  'no-number': 'answers.noNumber',
  'no-held': 'answers.noHeld',
} as const satisfies Record<DraftProblem, string>;

interface RuleDialogProps {
  mark: Mark;
  desk: PageDesk;
  onClose(): void;
}

interface PartProps {
  draft: RuleDraft;
  /** All other marks of the page. */
  others: readonly Mark[];
  desk: PageDesk;
  onChange(set: Partial<RuleDraft>): void;
}

/** What a mark does in a class, and what a class may do with it. */
export default function RuleDialog({ mark, desk, onClose }: RuleDialogProps) {
  const marks = desk.targetMarks?.all() ?? [];
  const others = marks.filter(({ id, standIn }) => id !== mark.id && !standIn);
  const [draft, setDraft] = useState(() => draftOf(mark, others));
  const [problem, setProblem] = useState<DraftProblem>();
  const keep = () => {
    const rule = ruleOf(draft, marks);
    if (typeof rule === 'string') return setProblem(rule);
    if (desk.target.perform(keepingRule(mark, { rule, hidden: draft.hidden }, marks))) onClose();
  };
  const change = (set: Partial<RuleDraft>) => {
    setProblem(undefined);
    setDraft({ ...draft, ...set });
  };
  const part = { draft, others, desk, onChange: change };
  return (
    <Modal
      title={t('answers.whatItDoes')}
      description={t('answers.ofThis', { name: sayMark(mark) })}
      open
      wide
      onOpenChange={onClose}
    >
      <TapPart {...part} />
      <MovePart {...part} />
      <PlacePart {...part} />
      {mark.kind === 'text' && <FillPart {...part} />}
      <QuestionPart {...part} />
      {mark.kind === 'plot' && <FigurePart mark={mark} {...part} />}
      <Heading>{t('answers.atFirst')}</Heading>
      <Tick checked={draft.hidden} onChange={(hidden) => change({ hidden })}>
        {t('answers.hiddenAtFirst')}
      </Tick>
      {problem && (
        <p role="alert" className="mb-3 font-bold text-alarm">
          {t(PROBLEMS[problem])}
        </p>
      )}
      <Button look="main" onClick={keep}>
        {t('answers.keep')}
      </Button>
    </Modal>
  );
}

function Heading({ children }: { children: string }) {
  return <h3 className="mt-4 mb-2 border-t-2 border-paper-line pt-3 text-lg font-bold">{children}</h3>;
}

function TapPart({ draft, others, desk, onChange }: PartProps) {
  const pages = desk.pages.get().map(({ id, title, surface }, i) => ({
    id,
    name: `${i + 1}. ${title}`,
    isSound: surface.kind === 'media' && surface.form === 'sound',
  }));
  return (
    <>
      <Heading>{t('answers.onTap')}</Heading>
      <StepList
        steps={draft.steps}
        marks={others}
        pages={pages}
        pictures={desk.pictures}
        onChange={(steps) => onChange({ steps })}
      />
      {draft.steps.length > 0 && (
        <Tick checked={draft.once} onChange={(once) => onChange({ once })}>
          {t('answers.once')}
        </Tick>
      )}
      <SelectField
        label={t('answers.tapIs')}
        value={draft.is}
        options={(Object.keys(TAP_IS) as RuleDraft['is'][]).map((value) => ({
          value,
          name: t(TAP_IS[value]),
        }))}
        onChange={(is) => onChange({ is })}
      />
    </>
  );
}

/** What is found or uncovered here, and what it answers. */
function QuestionPart({ draft, others, desk, onChange }: PartProps) {
  const covers = others.filter(({ kind, rule }) => kind === 'shape' || kind === 'picture' || rule?.pair);
  const { pictures } = desk;
  const [isUsed] = useState(draft.of.length > 0 || draft.pair.length > 0 || draft.trace !== undefined);
  return (
    <details open={isUsed} className="mt-4 border-t-2 border-paper-line pt-3">
      <summary className="mb-2 min-h-11 cursor-pointer text-lg font-bold">{t('answers.question')}</summary>
      <MarkChoice
        label={t('answers.whichQuestion')}
        marks={others}
        chosen={draft.of}
        pictures={pictures}
        onChange={(of) => onChange({ of })}
      />
      <MarkChoice
        label={t('answers.pairWith')}
        marks={covers}
        chosen={draft.pair}
        single
        pictures={pictures}
        onChange={(pair) => onChange({ pair })}
      />
      {draft.trace && (
        <Tick checked onChange={() => onChange({ trace: undefined })}>
          {t('answers.linesAreFound', { count: draft.trace.lines.length })}
        </Tick>
      )}
    </details>
  );
}

function MovePart({ draft, others, desk, onChange }: PartProps) {
  const { moves } = draft;
  return (
    <>
      <Heading>{t('answers.moving')}</Heading>
      <SelectField
        label={t('answers.theClassMoves')}
        value={moves}
        options={(Object.keys(MOVES) as MoveChoice[]).map((value) => ({ value, name: t(MOVES[value]) }))}
        onChange={(value) => onChange({ moves: value })}
      />
      {moves !== 'not' && moves !== 'freely' && (
        <MarkChoice
          label={t(HELD[moves])}
          marks={others}
          chosen={draft.held}
          single
          pictures={desk.pictures}
          onChange={(held) => onChange({ held })}
        />
      )}
      {moves !== 'not' && (
        <Tick checked={draft.copies} onChange={(copies) => onChange({ copies })}>
          {t('answers.asPile')}
        </Tick>
      )}
    </>
  );
}

function PlacePart({ draft, others, desk, onChange }: PartProps) {
  return (
    <>
      <Heading>{t('answers.place')}</Heading>
      <Tick checked={draft.isPlace} onChange={(isPlace) => onChange({ isPlace })}>
        {t('answers.isPlace')}
      </Tick>
      {draft.isPlace && (
        <>
          <MarkChoice
            label={t('answers.whatBelongs')}
            marks={others}
            chosen={draft.things}
            pictures={desk.pictures}
            onChange={(things) => onChange({ things })}
          />
          <Tick checked={draft.sendsBack} onChange={(sendsBack) => onChange({ sendsBack })}>
            {t('answers.sendsBack')}
          </Tick>
          <SelectField
            label={t('answers.lies')}
            value={draft.lies}
            options={LIES.map((value) => ({ value, name: t(`answers.lies_${value}`) }))}
            onChange={(lies) => onChange({ lies })}
          />
        </>
      )}
    </>
  );
}

const LIES = ['snapped', 'free', 'put', 'most'] as const;

/** What the class may set of a figure. */
function FigurePart({ mark, draft, onChange }: PartProps & { mark: MarkOf<'plot'> }) {
  const recipe = figureOf(mark.recipe);
  if (!recipe) return null;
  const toggle = (key: string, on: boolean) =>
    onChange({ sets: on ? [...draft.sets, key] : draft.sets.filter((one) => one !== key) });
  return (
    <div role="group" aria-label={t('answers.theClassSets')}>
      <Heading>{t('answers.theClassSets')}</Heading>
      {Object.keys(recipe.values).map((key) => (
        <Tick key={key} checked={draft.sets.includes(key)} onChange={(on) => toggle(key, on)}>
          {sayField(key)}
        </Tick>
      ))}
    </div>
  );
}

function FillPart({ draft, onChange }: PartProps) {
  const { fill } = draft;
  return (
    <>
      <Heading>{t('answers.filling')}</Heading>
      <SelectField
        label={t('answers.theClassFills')}
        value={fill}
        options={(Object.keys(FILLS) as RuleDraft['fill'][]).map((value) => ({
          value,
          name: t(FILLS[value]),
        }))}
        onChange={(value) => onChange({ fill: value })}
      />
      {fill === 'words' && (
        <>
          <label className="mb-3 block font-bold">
            {t('answers.rightAnswers')}
            <textarea
              rows={3}
              value={draft.answers}
              onChange={(event) => onChange({ answers: event.target.value })}
              className="mt-1 block w-full rounded-xl border-2 border-paper-line bg-white p-2 font-normal"
            />
          </label>
          <Tick checked={draft.typos} onChange={(typos) => onChange({ typos })}>
            {t('answers.typos')}
          </Tick>
        </>
      )}
      {fill === 'number' && (
        <div className="grid grid-cols-2 gap-4">
          <TextField
            label={t('answers.rightNumber')}
            value={draft.answers}
            onChange={(event) => onChange({ answers: event.target.value })}
          />
          <TextField
            label={t('answers.within')}
            value={draft.within}
            onChange={(event) => onChange({ within: event.target.value })}
          />
        </div>
      )}
    </>
  );
}
