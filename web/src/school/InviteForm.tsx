import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { inviteTeacher } from '../api/school';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { TextField } from '../ui/TextField';
import { t } from '../words';

interface Fields {
  name: string;
  email: string;
}

/** Invites somebody to be a teacher of the school, by a link that is given to them. */
export function InviteForm({ onLink }: { onLink(link: { for: string; url: string }): void }) {
  const { register, handleSubmit, reset, formState } = useForm<Fields>();
  const [problem, setProblem] = useState<string>();
  const submit = handleSubmit((who) => {
    setProblem(undefined);
    return inviteTeacher(who).then(
      ({ url }) => {
        onLink({ for: who.name, url });
        reset();
      },
      (error: Error) => setProblem(error.message),
    );
  });
  const { errors } = formState;
  return (
    <form onSubmit={(event) => void submit(event)} noValidate>
      <div className="grid gap-x-4 sm:grid-cols-2">
        <TextField
          label={t('school.name')}
          autoComplete="off"
          error={errors.name?.message}
          {...register('name', { required: t('school.pleaseGiveAName') })}
        />
        <TextField
          label={t('people.eMailAddress')}
          type="email"
          autoComplete="off"
          error={errors.email?.message}
          {...register('email', { required: t('school.pleaseGiveAnAddress') })}
        />
      </div>
      <Problem>{problem}</Problem>
      <Button type="submit" look="main" disabled={formState.isSubmitting}>
        {t('school.makeAnInvitation')}
      </Button>
    </form>
  );
}
