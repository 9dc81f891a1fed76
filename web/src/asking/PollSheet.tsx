import type { PollState, PollValue } from '@doodla/core';
import { POLL_LIMITS } from '@doodla/core';
import { lazy, Suspense, useState } from 'react';
import type { FormEvent } from 'react';
import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { t } from '../words';
import { optionNames } from '../words/optionNames';

const PollChart = lazy(() => import('./PollChart'));

/** What the teacher asks, on a student's screen. */
export default function PollSheet({ room }: { room: Room }) {
  const poll = useStore(room.classroom!.state)?.poll;
  return poll ? <Asked key={poll.id} room={room} poll={poll} /> : null;
}

const keyOf = (poll: string) => `doodla.answer.${poll}`;

/** What was answered in this tab before it was loaded again. */
function givenBefore(poll: string): PollValue | undefined {
  const kept = sessionStorage.getItem(keyOf(poll));
  return kept === null ? undefined : (JSON.parse(kept) as PollValue);
}

function Asked({ room, poll }: { room: Room; poll: PollState }) {
  const [given, setGiven] = useState(() => givenBefore(poll.id));
  const [folded, setFolded] = useState(false);
  const answer = (value: PollValue) =>
    void room.asking!.answer(poll.id, value).then((taken) => {
      if (!taken) return;
      sessionStorage.setItem(keyOf(poll.id), JSON.stringify(value));
      setGiven(value);
    });
  const names = optionNames(poll);
  if (folded)
    return (
      <Button
        className="absolute bottom-28 left-1/2 z-30 -translate-x-1/2 shadow-xl"
        onClick={() => setFolded(false)}
      >
        {t('asking.question')}
      </Button>
    );
  return (
    <section
      aria-label={t('asking.question')}
      className="absolute inset-x-2 bottom-28 z-30 mx-auto max-h-[60dvh] w-fit max-w-120 min-w-72 overflow-auto rounded-2xl bg-paper p-4 text-ink shadow-xl forced-colors:border-2"
    >
      <p role="status" className="mb-3 text-lg font-bold">
        {poll.question || t('asking.yourTeacherAsks')}
      </p>
      {poll.open && names.length > 0 && (
        <div role="radiogroup" aria-label={t('asking.yourAnswer')} className="flex flex-wrap gap-2">
          {names.map((name, i) => (
            <button
              key={name}
              type="button"
              role="radio"
              aria-checked={given === i}
              onClick={() => answer(i)}
              className={classes(
                'min-h-12 min-w-14 grow rounded-xl border-2 px-4 text-lg font-bold',
                given === i ? 'border-board bg-board text-paper' : 'border-paper-line bg-white',
              )}
            >
              {given === i && '✓ '}
              {name}
            </button>
          ))}
        </div>
      )}
      {poll.open && names.length === 0 && <Typed kind={poll.kind} onAnswer={answer} />}
      {given !== undefined && poll.open && (
        <p role="status" className="mt-2">
          {t('asking.thatIsTaken')}
        </p>
      )}
      {!poll.open && <p className="mb-2">{t('asking.isClosed')}</p>}
      {poll.answers && poll.answers.length > 0 && (
        <Suspense>
          <PollChart poll={poll} />
        </Suspense>
      )}
      <button type="button" className="mt-2 min-h-11 underline" onClick={() => setFolded(true)}>
        {t('asking.foldAway')}
      </button>
    </section>
  );
}

function Typed({ kind, onAnswer }: { kind: PollState['kind']; onAnswer(value: PollValue): void }) {
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const typed = new FormData(event.currentTarget).get('answer') as string;
    onAnswer(kind === 'number' ? Number(typed.replace(',', '.')) : typed.trim());
  };
  return (
    <form onSubmit={submit} className="flex gap-2">
      <input
        name="answer"
        aria-label={t('asking.yourAnswer')}
        required
        autoComplete="off"
        maxLength={POLL_LIMITS.words}
        {...(kind === 'number' && { inputMode: 'decimal', pattern: '\\s*-?\\d+([.,]\\d+)?\\s*' })}
        className="min-h-12 min-w-0 grow rounded-xl border-2 border-paper-line bg-white px-3 text-lg"
      />
      <Button look="main" type="submit">
        {t('asking.send')}
      </Button>
    </form>
  );
}
