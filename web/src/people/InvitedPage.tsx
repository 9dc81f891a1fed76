import type { InvitationDoor } from '@doodla/core';
import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { useParams } from 'react-router';
import { acceptInvitation, invitationOf } from '../api/school';
import { Button } from '../ui/Button';
import { Front } from '../ui/Front';
import { Problem } from '../ui/Problem';
import { TextField } from '../ui/TextField';
import { t } from '../words';
import { NewPasswordField, newPasswordRules } from './NewPasswordField';

/** Where somebody who was invited becomes a teacher of the school, or one of them chooses a new password. */
export default function InvitedPage() {
  const { token = '' } = useParams();
  const [door, setDoor] = useState<InvitationDoor>();
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    invitationOf(token).then(setDoor, (error: Error) => setProblem(error.message));
  }, [token]);
  if (door) return <Accept token={token} door={door} />;
  return (
    <Front title={problem ? t('people.invitationIsOver') : t('common.opening')}>
      <Problem>{problem}</Problem>
    </Front>
  );
}

interface Fields {
  name: string;
  password: string;
}

function Accept({ token, door }: { token: string; door: InvitationDoor }) {
  const { register, handleSubmit, formState } = useForm<Fields>({ defaultValues: { name: door.name } });
  const [problem, setProblem] = useState<string>();
  const submit = handleSubmit((fields) =>
    // The whole application is opened anew, for whoever is signed in now.
    acceptInvitation(token, fields).then(
      () => location.assign('/'),
      (error: Error) => setProblem(error.message),
    ),
  );
  const { errors } = formState;
  return (
    <Front title={t(door.isReset ? 'people.chooseANewPassword' : 'people.welcomeToDoodla')}>
      <p className="mb-4">{[placeOf(door), door.email].filter((part) => part !== '').join(' · ')}</p>
      <form onSubmit={(event) => void submit(event)} noValidate>
        {!door.isReset && (
          <TextField
            label={t('common.yourName')}
            autoComplete="name"
            error={errors.name?.message}
            {...register('name', { required: t('people.pleaseGiveYourName') })}
          />
        )}
        <NewPasswordField error={errors.password?.message} {...register('password', newPasswordRules())} />
        <Problem>{problem}</Problem>
        <Button type="submit" look="main" className="w-full" disabled={formState.isSubmitting}>
          {t('people.startUsingDoodla')}
        </Button>
      </form>
    </Front>
  );
}

/** What the invitation is for: a school by its name, or the installation. */
function placeOf({ school }: InvitationDoor): string {
  return school ?? t('installation.title');
}
