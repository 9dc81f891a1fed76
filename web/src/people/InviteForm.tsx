import type { InvitationReply, TeacherInviteRequest } from '@doodla/core';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { TextField } from '../ui/TextField';
import { t } from '../words';
import { OnceLink } from './OnceLink';

interface InviteFormProps {
  nameLabel: string;
  emailLabel: string;
  invite(who: TeacherInviteRequest): Promise<InvitationReply>;
}

/** Invites somebody, by a link that is given to them. */
export function InviteForm({ nameLabel, emailLabel, invite }: InviteFormProps) {
  const { register, handleSubmit, reset, formState } = useForm<TeacherInviteRequest>();
  const [problem, setProblem] = useState<string>();
  const [link, setLink] = useState<{ for: string; url: string }>();
  const submit = handleSubmit((who) => {
    setProblem(undefined);
    return invite(who).then(
      ({ url }) => {
        setLink({ for: who.name, url });
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
          label={nameLabel}
          autoComplete="off"
          error={errors.name?.message}
          {...register('name', { required: t('school.pleaseGiveAName') })}
        />
        <TextField
          label={emailLabel}
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
      {link && <OnceLink {...link} />}
    </form>
  );
}
