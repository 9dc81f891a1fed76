import type { NewSchoolRequest } from '@doodla/core';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { makeSchool } from '../api/installation';
import { OnceLink } from '../people/OnceLink';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { TextField } from '../ui/TextField';
import { t } from '../words';
import { slugOf } from './typed';
import { useSchoolChange } from './useSchoolChange';

/** Makes a school, and a link for whoever is to look after it. */
export function NewSchoolForm() {
  const { register, handleSubmit, formState, setValue, reset } = useForm<NewSchoolRequest>();
  const { problem, attempt } = useSchoolChange();
  const [link, setLink] = useState<{ for: string; url: string }>();
  const submit = handleSubmit((school) =>
    attempt(
      () => makeSchool(school),
      ({ url }) => {
        setLink({ for: school.adminName, url });
        reset();
      },
    ),
  );
  const { errors, dirtyFields } = formState;
  const suggest = (name: string) => {
    if (!dirtyFields.slug) setValue('slug', slugOf(name));
  };
  return (
    <form onSubmit={(event) => void submit(event)} noValidate>
      <TextField
        label={t('installation.nameOfTheSchool')}
        autoComplete="off"
        error={errors.name?.message}
        {...register('name', {
          required: t('school.pleaseGiveAName'),
          onChange: (event: { target: { value: string } }) => suggest(event.target.value),
        })}
      />
      <TextField
        label={t('installation.slug')}
        autoComplete="off"
        error={errors.slug?.message}
        {...register('slug', { required: t('server.school-slug') })}
      />
      <TextField
        label={t('installation.adminName')}
        autoComplete="off"
        error={errors.adminName?.message}
        {...register('adminName', { required: t('school.pleaseGiveAName') })}
      />
      <TextField
        label={t('installation.adminEmail')}
        type="email"
        autoComplete="off"
        error={errors.adminEmail?.message}
        {...register('adminEmail', { required: t('school.pleaseGiveAnAddress') })}
      />
      <Problem>{problem}</Problem>
      <Button type="submit" look="main" disabled={formState.isSubmitting}>
        {t('installation.makeSchool')}
      </Button>
      {link && <OnceLink {...link} />}
    </form>
  );
}
