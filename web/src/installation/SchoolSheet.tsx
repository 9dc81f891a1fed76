import type { SchoolFigures } from '@doodla/core';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { toast } from 'sonner';
import { changeSchool, eraseSchool, inviteAdmin } from '../api/installation';
import { InviteForm } from '../people/InviteForm';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { TextField } from '../ui/TextField';
import { t } from '../words';
import { SignInForm } from './SignInForm';
import { gigabytes } from '../ui/gigabytes';
import { typedNumber } from './typed';
import { useSchoolChange } from './useSchoolChange';

/** What can be done with a school from outside. */
export function SchoolSheet({ school, onErased }: { school: SchoolFigures; onErased(): void }) {
  return (
    <div className="flex flex-col gap-6">
      <p className="text-ink-soft">
        {t('installation.running', { count: school.running })} ·{' '}
        {t('installation.admins', { count: school.admins })}
      </p>
      <NameAndRoom school={school} />
      <section>
        <h3 className="mb-2 text-lg font-bold">{t('installation.inviteAdmin')}</h3>
        <p className="mb-3 text-sm text-ink-soft">{t('installation.inviteHint')}</p>
        <InviteForm
          nameLabel={t('installation.adminName')}
          emailLabel={t('installation.adminEmail')}
          invite={(who) => inviteAdmin(school.id, who)}
        />
      </section>
      <section>
        <h3 className="mb-2 text-lg font-bold">{t('installation.signIn')}</h3>
        <SignInForm school={school} />
      </section>
      <section>
        <h3 className="mb-2 text-lg font-bold">
          {t(school.closedAt === null ? 'installation.close' : 'installation.closed')}
        </h3>
        <Closing school={school} onErased={onErased} />
      </section>
    </div>
  );
}

interface RoomFields {
  name: string;
  slug: string;
  gigabytes: string;
  teachers: string;
}

function NameAndRoom({ school: { id, name, slug, maxBytes, maxTeachers } }: { school: SchoolFigures }) {
  const { register, handleSubmit, formState } = useForm<RoomFields>({
    defaultValues: {
      ...{ name, slug },
      gigabytes: maxBytes === null ? '' : String(gigabytes(maxBytes)),
      teachers: String(maxTeachers ?? ''),
    },
  });
  const { problem, attempt } = useSchoolChange();
  const { dirtyFields: changed, errors } = formState;
  const submit = handleSubmit((fields) => {
    const room = typedNumber(fields.gigabytes);
    const wanted = {
      ...(changed.name && { name: fields.name }),
      ...(changed.slug && { slug: fields.slug }),
      ...(changed.gigabytes && { maxBytes: room === null ? null : Math.round(room * 1e9) }),
      ...(changed.teachers && { maxTeachers: typedNumber(fields.teachers) }),
    };
    return attempt(
      () => changeSchool(id, wanted),
      () => toast(t('installation.changed')),
    );
  });
  const isRoom = (text: string) => {
    const number = typedNumber(text);
    return number === null || number > 0 || t('server.school-room');
  };
  return (
    <form onSubmit={(event) => void submit(event)} noValidate>
      <div className="grid gap-x-4 sm:grid-cols-2">
        <TextField label={t('installation.nameOfTheSchool')} autoComplete="off" {...register('name')} />
        <TextField label={t('installation.slug')} autoComplete="off" {...register('slug')} />
        <TextField
          label={t('installation.maxGigabytes')}
          inputMode="decimal"
          error={errors.gigabytes?.message}
          {...register('gigabytes', { validate: isRoom })}
        />
        <TextField
          label={t('installation.maxTeachers')}
          inputMode="numeric"
          error={errors.teachers?.message}
          {...register('teachers', { validate: isRoom })}
        />
      </div>
      <Problem>{problem}</Problem>
      <Button type="submit" look="main" disabled={!formState.isDirty || formState.isSubmitting}>
        {t('installation.keep')}
      </Button>
    </form>
  );
}

function Closing({ school, onErased }: { school: SchoolFigures; onErased(): void }) {
  const { id, closedAt } = school;
  const [typed, setTyped] = useState('');
  const { problem, isBusy, attempt } = useSchoolChange();
  const set = (closed: boolean) => void attempt(() => changeSchool(id, { closed }));
  if (closedAt === null)
    return (
      <>
        <p className="mb-3">{t('installation.closeHint')}</p>
        <Problem>{problem}</Problem>
        <Button look="alarm" onClick={() => set(true)}>
          {t('installation.close')}
        </Button>
      </>
    );
  return (
    <>
      <Button className="mb-4" onClick={() => set(false)}>
        {t('installation.open')}
      </Button>
      <p className="mb-3">{t('installation.eraseHint')}</p>
      <TextField
        label={t('installation.typeItsName')}
        value={typed}
        autoComplete="off"
        onChange={(event) => setTyped(event.target.value)}
      />
      <Problem>{problem}</Problem>
      <Button
        look="alarm"
        disabled={typed === '' || isBusy}
        onClick={() => void attempt(() => eraseSchool(id, typed), onErased)}
      >
        {t(isBusy ? 'installation.erasing' : 'installation.erase')}
      </Button>
    </>
  );
}
