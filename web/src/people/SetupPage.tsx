import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { setUp } from '../api/people';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Front } from '../ui/Front';
import { TextField } from '../ui/TextField';
import { useRefreshMe } from './useRefreshMe';

interface Fields {
  name: string;
  email: string;
  password: string;
}

/** First start: makes the school's first teacher. */
export function SetupPage() {
  const { register, handleSubmit, formState } = useForm<Fields>();
  const [problem, setProblem] = useState<string>();
  const refreshMe = useRefreshMe();
  const submit = handleSubmit((fields) =>
    setUp(fields).then(refreshMe, (error: Error) => setProblem(error.message)),
  );
  const { errors } = formState;
  return (
    <Front title="Welcome. Who is the first teacher?">
      <form onSubmit={(event) => void submit(event)} noValidate>
        <TextField
          label="Your name"
          autoComplete="name"
          error={errors.name?.message}
          {...register('name', { required: 'Please give your name.' })}
        />
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
          autoComplete="new-password"
          error={errors.password?.message}
          {...register('password', {
            minLength: { value: 10, message: 'Please choose a password of at least 10 characters.' },
            required: 'Please choose a password of at least 10 characters.',
          })}
        />
        <Problem>{problem}</Problem>
        <Button type="submit" look="main" className="w-full" disabled={formState.isSubmitting}>
          Start using Doodla
        </Button>
      </form>
    </Front>
  );
}
