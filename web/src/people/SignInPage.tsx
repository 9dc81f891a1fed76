import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { Me } from '@doodla/core';
import { Link, useSearchParams } from 'react-router';
import { demoSignIn, signIn } from '../api/people';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Front } from '../ui/Front';
import { TextField } from '../ui/TextField';
import { useRefreshMe } from './useRefreshMe';
import { t } from '../words';

interface Fields {
  email: string;
  password: string;
}

/** What can go wrong at the school's own sign-in, which sends back to here. */
const FAILURES = {
  'address-not-verified': t('server.address-not-verified'),
  'not-a-teacher': t('server.not-a-teacher'),
  'school-sign-in-away': t('server.school-sign-in-away'),
  'school-sign-in-failed': t('server.school-sign-in-failed'),
  'school-sign-in-late': t('server.school-sign-in-late'),
};

const isFailure = (code: string | null): code is keyof typeof FAILURES =>
  code !== null && Object.hasOwn(FAILURES, code);

export function SignInPage({ demo, schoolSignIn }: Pick<Me, 'demo' | 'schoolSignIn'>) {
  const failure = useSearchParams()[0].get('problem');
  const { register, handleSubmit, formState } = useForm<Fields>();
  const [problem, setProblem] = useState<string | undefined>(
    isFailure(failure) ? FAILURES[failure] : undefined,
  );
  const refreshMe = useRefreshMe();
  const enter = (entering: Promise<void>) =>
    entering.then(refreshMe, (error: Error) => setProblem(error.message));
  const submit = handleSubmit((fields) => enter(signIn(fields)));
  const { errors } = formState;
  return (
    <Front title={t('people.signInToTeach')}>
      {demo && (
        <Button look="main" className="mb-6 w-full" onClick={() => void enter(demoSignIn())}>
          {t('people.signInAsTheDemo')}
        </Button>
      )}
      {schoolSignIn && (
        <a
          href="/api/sign-in/school"
          className="mb-6 flex min-h-11 w-full items-center justify-center rounded-xl bg-board px-4 text-base font-bold text-paper"
        >
          {t('people.signInWithTheSchool')}
        </a>
      )}
      <form onSubmit={(event) => void submit(event)} noValidate>
        <TextField
          label={t('people.eMailAddress')}
          type="email"
          autoComplete="username"
          error={errors.email?.message}
          {...register('email', { required: t('people.pleaseGiveYourEMail') })}
        />
        <TextField
          label={t('people.password')}
          type="password"
          autoComplete="current-password"
          error={errors.password?.message}
          {...register('password', { required: t('people.pleaseGiveYourPassword') })}
        />
        <Problem>{problem}</Problem>
        <Button
          type="submit"
          look={demo || schoolSignIn ? 'plain' : 'main'}
          className="w-full"
          disabled={formState.isSubmitting}
        >
          {t('people.signIn')}
        </Button>
      </form>
      <p className="mt-6 border-t border-paper-line pt-4">
        {t('people.areYouAStudent')}{' '}
        <Link to="/join" className="font-bold underline">
          {t('common.joinAClass')}
        </Link>
      </p>
    </Front>
  );
}
