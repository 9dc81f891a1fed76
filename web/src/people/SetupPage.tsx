import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { setUp } from '../api/people';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Front } from '../ui/Front';
import { TextField } from '../ui/TextField';
import { useRefreshMe } from './useRefreshMe';
import { t } from '../words';
import { NewPasswordField, newPasswordRules } from './NewPasswordField';

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
    <Front title={t('people.welcomeWhoIsTheFirst')}>
      <form onSubmit={(event) => void submit(event)} noValidate>
        <TextField
          label={t('common.yourName')}
          autoComplete="name"
          error={errors.name?.message}
          {...register('name', { required: t('people.pleaseGiveYourName') })}
        />
        <TextField
          label={t('people.eMailAddress')}
          type="email"
          autoComplete="username"
          error={errors.email?.message}
          {...register('email', { required: t('people.pleaseGiveYourEMail') })}
        />
        <NewPasswordField error={errors.password?.message} {...register('password', newPasswordRules())} />
        <Problem>{problem}</Problem>
        <Button type="submit" look="main" className="w-full" disabled={formState.isSubmitting}>
          {t('people.startUsingDoodla')}
        </Button>
      </form>
    </Front>
  );
}
