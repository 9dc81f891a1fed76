import type { Poll, PollKind } from '@doodla/core';
import { POLL_LIMITS } from '@doodla/core';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { IdeaActions } from '../room/ideaActions';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { NumberField } from '../ui/NumberField';
import { PaperChoice } from '../ui/PaperChoice';
import { TextField } from '../ui/TextField';
import { Tick } from '../ui/Tick';
import { t } from '../words';
import { AskedBefore } from './AskedBefore';
import { PollResults } from './PollResults';

/** What one can ask for: what a poll can, or ideas on a page. */
type Asked = PollKind | 'ideas';

const KIND_NAMES: Readonly<Record<Asked, string>> = {
  'yes-no': t('asking.yesOrNo'),
  letters: t('asking.letters'),
  answers: t('asking.ownAnswers'),
  number: t('asking.aNumber'),
  words: t('asking.aFewWords'),
  ideas: t('asking.ideas'),
};

/** Asks the class something on the spot, and shows what it answers. */
export default function AskDialog({ desk, onClose }: { desk: PageDesk; onClose(): void }) {
  const poll = useStore(desk.room.classroom!.state)?.poll;
  return (
    <Modal title={t('asking.askTheClass')} open onOpenChange={onClose}>
      {poll ? (
        <PollResults desk={desk} poll={poll} onPlaced={onClose} />
      ) : (
        <>
          <AskForm
            onAsk={(made) => void desk.room.asking!.ask(made)}
            onCollect={(question) => {
              new IdeaActions(desk).begin(question);
              onClose();
            }}
          />
          <AskedBefore sitting={desk.sitting!} />
        </>
      )}
    </Modal>
  );
}

interface AskFormProps {
  onAsk(poll: Poll): void;
  /** Begins to collect ideas. */
  onCollect(question: string): void;
}

function AskForm({ onAsk, onCollect }: AskFormProps) {
  const [kind, setKind] = useState<Asked>('yes-no');
  const [count, setCount] = useState(4);
  const [answers, setAnswers] = useState('');
  const [anonymous, setAnonymous] = useState(false);
  const [hidden, setHidden] = useState(true);
  const lines = [
    ...new Set(answers.split('\n').map((line) => line.trim().slice(0, POLL_LIMITS.option))),
  ].filter(Boolean);
  const options = optionsOf(kind, count, lines);
  const isReady = kind === 'ideas' || kind === 'number' || kind === 'words' || options.length >= 2;
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const question = new FormData(event.currentTarget).get('question') as string;
    if (kind === 'ideas') return onCollect(question.trim());
    onAsk({ id: nanoid(), kind, question: question.trim(), options, anonymous, hidden });
  };
  return (
    <form onSubmit={submit}>
      <TextField label={t('asking.questionOrSayIt')} name="question" maxLength={POLL_LIMITS.question} />
      <div className="mb-4">
        <PaperChoice label={t('asking.whatIsAnswered')} value={kind} names={KIND_NAMES} onChange={setKind} />
      </div>
      {kind === 'letters' && (
        <div className="mb-4">
          <NumberField label={t('asking.howManyLetters')} value={count} min={2} max={6} onChange={setCount} />
        </div>
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
      {kind === 'ideas' ? (
        <p className="mb-2">{t('asking.ideasAreCollected')}</p>
      ) : (
        <>
          <Tick checked={anonymous} onChange={setAnonymous}>
            {t('asking.withoutNames')}
          </Tick>
          <Tick checked={hidden} onChange={setHidden}>
            {t('asking.hideUntilClosed')}
          </Tick>
        </>
      )}
      <Button look="main" type="submit" className="mt-3" disabled={!isReady}>
        {t('asking.ask')}
      </Button>
    </form>
  );
}

function optionsOf(kind: Asked, count: number, lines: readonly string[]): string[] {
  if (kind === 'yes-no') return ['yes', 'no'];
  if (kind === 'letters') return [...'ABCDEF'.slice(0, count)];
  return kind === 'answers' ? lines.slice(0, POLL_LIMITS.options) : [];
}
