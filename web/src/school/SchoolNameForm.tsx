import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { toast } from 'sonner';
import { schoolHealthQuery, setSchoolName } from '../api/school';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { TextField } from '../ui/TextField';
import { t } from '../words';

/** What the school is called. */
export function SchoolNameForm({ name }: { name: string }) {
  const { register, handleSubmit, formState } = useForm({ defaultValues: { name } });
  const [problem, setProblem] = useState<string>();
  const client = useQueryClient();
  const submit = handleSubmit((wanted) => {
    setProblem(undefined);
    return setSchoolName(wanted.name).then(
      () => {
        toast(t('school.nameIsKept'));
        return client.invalidateQueries({ queryKey: schoolHealthQuery.queryKey });
      },
      (error: Error) => setProblem(error.message),
    );
  });
  return (
    <form onSubmit={(event) => void submit(event)} noValidate>
      <TextField label={t('installation.nameOfTheSchool')} autoComplete="off" {...register('name')} />
      <Problem>{problem}</Problem>
      <Button type="submit" disabled={formState.isSubmitting}>
        {t('school.keepName')}
      </Button>
    </form>
  );
}
