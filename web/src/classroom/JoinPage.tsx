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
import { TextField } from '../ui/TextField';
import { t } from '../words';
import { Rich } from '../words/Rich';

const ASK_AGAIN_MS = 1500;

/** Somebody of the same name is here, and the teacher is asked whether it is the same person. */
interface Waiting {
  asking: Asking;
  code: string;
  name: string;
}

/** Where students come in: a code, a name, no account. */
export default function JoinPage() {
  const { code } = useParams();
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const [waiting, setWaiting] = useState<Waiting>();
  const navigate = useNavigate();

  const fail = (error: unknown) => {
    setProblem((error as Error).message);
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
    const typed = { code: form.get('code') as string, name: form.get('name') as string };
    setBusy(true);
    setProblem(undefined);
    setWaiting(undefined);
    try {
      await take(await joinClass(typed.code, typed.name), typed);
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
          name="code"
          defaultValue={code}
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          maxLength={12}
          required
          className="text-center text-2xl tracking-[0.3em] uppercase"
        />
        <TextField
          label={t('common.yourName')}
          name="name"
          defaultValue={code && placeBy(code)?.student.name}
          autoComplete="nickname"
          maxLength={40}
          required
        />
        {waiting && (
          <p role="status" className="mb-4">
            <Rich text={t('classroom.somebodyCalledIsHere', { name: waiting.name })} />
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
