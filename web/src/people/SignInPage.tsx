import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Link } from 'react-router';
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

export function SignInPage({ demo }: { demo: boolean }) {
  const { register, handleSubmit, formState } = useForm<Fields>();
  const [problem, setProblem] = useState<string>();
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
          look={demo ? 'plain' : 'main'}
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
