import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Link } from 'react-router';
import { demoSignIn, signIn } from '../api/people';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Front } from '../ui/Front';
import { TextField } from '../ui/TextField';
import { useRefreshMe } from './useRefreshMe';

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
    <Front title="Sign in to teach">
      {demo && (
        <Button look="main" className="mb-6 w-full" onClick={() => void enter(demoSignIn())}>
          Sign in as the demo teacher
        </Button>
      )}
      <form onSubmit={(event) => void submit(event)} noValidate>
        <TextField
          label="E-mail address"
          type="email"
          autoComplete="username"
          error={errors.email?.message}
          {...register('email', { required: 'Please give your e-mail address.' })}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          error={errors.password?.message}
          {...register('password', { required: 'Please give your password.' })}
        />
        <Problem>{problem}</Problem>
        <Button
          type="submit"
          look={demo ? 'plain' : 'main'}
          className="w-full"
          disabled={formState.isSubmitting}
        >
          Sign in
        </Button>
      </form>
      <p className="mt-6 border-t border-paper-line pt-4">
        Are you a student?{' '}
        <Link to="/join" className="font-bold underline">
          Join a class
        </Link>
      </p>
    </Front>
  );
}
