import type { SchoolFigures } from '@doodla/core';
import { useForm } from 'react-hook-form';
import { toast } from 'sonner';
import { changeSchool } from '../api/installation';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { TextField } from '../ui/TextField';
import { t } from '../words';
import { useSchoolChange } from './useSchoolChange';

interface Fields {
  issuer: string;
  clientId: string;
  clientSecret: string;
  trustEmail: boolean;
}

/** A school's own sign-in (OpenID Connect). */
export function SignInForm({ school: { id, signIn } }: { school: SchoolFigures }) {
  const { register, handleSubmit, formState, reset } = useForm<Fields>({
    defaultValues: {
      issuer: signIn?.issuer ?? '',
      clientId: signIn?.clientId ?? '',
      clientSecret: '',
      trustEmail: signIn?.trustEmail ?? false,
    },
  });
  const { problem, attempt } = useSchoolChange();
  const submit = handleSubmit(({ clientSecret, ...wanted }) =>
    attempt(
      () => changeSchool(id, { signIn: { ...wanted, ...(clientSecret && { clientSecret }) } }),
      () => toast(t('installation.changed')),
    ),
  );
  const takeAway = () =>
    void attempt(
      () => changeSchool(id, { signIn: null }),
      () => reset({ issuer: '', clientId: '', clientSecret: '', trustEmail: false }),
    );
  return (
    <form onSubmit={(event) => void submit(event)} noValidate>
      <p className="mb-3 text-sm text-ink-soft">{t('installation.signInHint')}</p>
      <TextField label={t('installation.issuer')} type="url" autoComplete="off" {...register('issuer')} />
      <div className="grid gap-x-4 sm:grid-cols-2">
        <TextField label={t('installation.clientId')} autoComplete="off" {...register('clientId')} />
        <TextField
          label={t('installation.clientSecret')}
          type="password"
          autoComplete="new-password"
          {...register('clientSecret')}
        />
      </div>
      <label className="mb-4 flex min-h-11 items-center gap-3">
        <input type="checkbox" className="size-5" {...register('trustEmail')} />
        {t('installation.trustEmail')}
      </label>
      <Problem>{problem}</Problem>
      <div className="flex flex-wrap gap-3">
        <Button type="submit" disabled={formState.isSubmitting}>
          {t('installation.keepSignIn')}
        </Button>
        {signIn && <Button onClick={takeAway}>{t('installation.noSignIn')}</Button>}
      </div>
    </form>
  );
}
