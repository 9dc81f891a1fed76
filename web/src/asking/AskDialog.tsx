import type { Poll, PollKind } from '@doodla/core';
import { POLL_KINDS, POLL_LIMITS } from '@doodla/core';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { FormEvent } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import { Tick } from '../ui/Tick';
import { t } from '../words';
import { PollResults } from './PollResults';

const KIND_NAMES = {
  'yes-no': 'asking.yesOrNo',
  letters: 'asking.letters',
  answers: 'asking.ownAnswers',
  number: 'asking.aNumber',
  words: 'asking.aFewWords',
} as const satisfies Record<PollKind, string>;

/** Asks the class something on the spot, and shows what it answers. */
export default function AskDialog({ desk, onClose }: { desk: PageDesk; onClose(): void }) {
  const poll = useStore(desk.room.classroom!.state)?.poll;
  return (
    <Modal title={t('asking.askTheClass')} open onOpenChange={onClose}>
      {poll ? (
        <PollResults desk={desk} poll={poll} onPlaced={onClose} />
      ) : (
        <AskForm onAsk={(made) => void desk.room.asking!.ask(made)} />
      )}
    </Modal>
  );
}

function AskForm({ onAsk }: { onAsk(poll: Poll): void }) {
  const [kind, setKind] = useState<PollKind>('yes-no');
  const [count, setCount] = useState(4);
  const [answers, setAnswers] = useState('');
  const [anonymous, setAnonymous] = useState(false);
  const [hidden, setHidden] = useState(true);
  const lines = [
    ...new Set(answers.split('\n').map((line) => line.trim().slice(0, POLL_LIMITS.option))),
  ].filter(Boolean);
  const options = optionsOf(kind, count, lines);
  const isReady = kind === 'number' || kind === 'words' || options.length >= 2;
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const question = new FormData(event.currentTarget).get('question') as string;
    onAsk({ id: nanoid(), kind, question: question.trim(), options, anonymous, hidden });
  };
  return (
    <form onSubmit={submit}>
      <TextField label={t('asking.questionOrSayIt')} name="question" maxLength={POLL_LIMITS.question} />
      <div role="radiogroup" aria-label={t('asking.whatIsAnswered')} className="mb-4 flex flex-wrap gap-2">
        {POLL_KINDS.map((one) => (
          <button
            key={one}
            type="button"
            role="radio"
            aria-checked={kind === one}
            onClick={() => setKind(one)}
            className={classes(
              'min-h-11 rounded-xl border-2 px-3',
              kind === one
                ? 'border-board bg-board font-bold text-paper'
                : 'border-paper-line hover:bg-paper-dim',
            )}
          >
            {t(KIND_NAMES[one])}
          </button>
        ))}
      </div>
      {kind === 'letters' && (
        <label className="mb-4 flex items-center gap-3">
          <span className="font-bold">{t('asking.howManyLetters')}</span>
          <input
            type="number"
            min={2}
            max={6}
            value={count}
            onChange={(event) => setCount(Math.min(6, Math.max(2, event.target.valueAsNumber || 2)))}
            className="min-h-11 w-20 rounded-xl border-2 border-paper-line bg-white px-3"
          />
        </label>
      )}
      {kind === 'answers' && (
        <label className="mb-4 block">
          <span className="mb-1 block font-bold">{t('asking.answersOneALine')}</span>
          <textarea
            value={answers}
            rows={4}
            onChange={(event) => setAnswers(event.target.value)}
            className="w-full rounded-xl border-2 border-paper-line bg-white p-3"
          />
        </label>
      )}
      <Tick checked={anonymous} onChange={setAnonymous}>
        {t('asking.withoutNames')}
      </Tick>
      <Tick checked={hidden} onChange={setHidden}>
        {t('asking.hideUntilClosed')}
      </Tick>
      <Button look="main" type="submit" className="mt-3" disabled={!isReady}>
        {t('asking.ask')}
      </Button>
    </form>
  );
}

function optionsOf(kind: PollKind, count: number, lines: readonly string[]): string[] {
  if (kind === 'yes-no') return ['yes', 'no'];
  if (kind === 'letters') return [...'ABCDEF'.slice(0, count)];
  return kind === 'answers' ? lines.slice(0, POLL_LIMITS.options) : [];
}
