import { useEffect, useState } from 'react';
import type { FormEvent } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { Asking } from '@doodla/core';
import type { Place } from '../api/joining';
import { askedPlace, joinClass, placeBy } from '../api/joining';
import type { RequestError } from '../api/http';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Front } from '../ui/Front';
import { NameField } from './NameField';
import { useDoor } from './useDoor';
import { TextField } from '../ui/TextField';
import { t } from '../words';
import { Rich } from '../words/Rich';

const ASK_AGAIN_MS = 1500;

const WAITING = {
  'same-name': 'classroom.somebodyCalledIsHere',
  'not-listed': 'classroom.yourNameIsNotOnTheList',
  new: 'classroom.yourTeacherLetsYouIn',
} as const;

/** The teacher is asked first. */
interface Waiting {
  asking: Asking;
  code: string;
  name: string;
}

/** Where students come in: a code, a name, no account. */
export default function JoinPage() {
  const { code: given = '' } = useParams();
  const [code, setCode] = useState(given);
  const { door, lookAgain } = useDoor(code);
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const [waiting, setWaiting] = useState<Waiting>();
  const navigate = useNavigate();

  const fail = (error: unknown) => {
    setProblem((error as Error).message);
    if ((error as RequestError).code === 'password-wanted') lookAgain();
    setBusy(false);
    setWaiting(undefined);
  };
  const take = async (answer: Place | Asking, typed: { code: string; name: string }) => {
    if ('ask' in answer) setWaiting({ asking: answer, ...typed });
    else await navigate(`/class/${answer.sitting}`);
    setBusy(false);
  };
  const join = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const typed = { code, name: form.get('name') as string };
    const password = (form.get('password') as string | null) ?? undefined;
    setBusy(true);
    setProblem(undefined);
    setWaiting(undefined);
    try {
      await take(await joinClass(typed.code, typed.name, password), typed);
    } catch (error) {
      fail(error);
    }
  };
  useEffect(() => {
    if (!waiting) return;
    const timer = setTimeout(() => {
      askedPlace(waiting.asking, waiting.code)
        .then((answer) => take(answer, waiting))
        // A line that is gone for a moment is no answer.
        .catch((error: RequestError) =>
          error.code === 'unreachable' ? setWaiting({ ...waiting }) : fail(error),
        );
    }, ASK_AGAIN_MS);
    return () => clearTimeout(timer);
  });

  // Comes while the name is typed; where it fails, going in asks again.
  useEffect(() => void import('./StudentPage').catch(() => undefined), []);
  return (
    <Front title={t('classroom.joinYourClass')}>
      <form onSubmit={(event) => void join(event)}>
        <TextField
          label={t('classroom.classCode')}
          value={code}
          onChange={(event) => setCode(event.target.value)}
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          maxLength={12}
          required
          className="text-center text-2xl tracking-[0.3em] uppercase"
        />
        {door?.asksPassword && (
          <TextField
            label={t('classroom.passwordOfTheClass')}
            name="password"
            autoComplete="off"
            maxLength={100}
            required
            onBlur={(event) => lookAgain(event.target.value)}
          />
        )}
        <NameField names={door?.names ?? []} before={placeBy(code)?.student.name} />
        {waiting && (
          <p role="status" className="mb-4">
            <Rich text={t(WAITING[waiting.asking.why], { name: waiting.name })} />
          </p>
        )}
        <Problem>{problem}</Problem>
        <Button type="submit" look="main" className="w-full" disabled={busy}>
          {t('classroom.goIn')}
        </Button>
      </form>
    </Front>
  );
}
