import type { LimitName, SchoolLimits } from '@doodla/core';
import { LIMITS } from '@doodla/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { toast } from 'sonner';
import { schoolHealthQuery, setLimits } from '../api/school';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { TextField } from '../ui/TextField';
import { t } from '../words';

const LABELS: Record<LimitName, string> = {
  maxUploadMb: t('school.largestFile'),
  maxPages: t('school.mostPages'),
  retentionDays: t('school.daysKept'),
};

/** How much may be brought in, and how long classes are kept. */
export function LimitsForm({ maxUploadMb, maxPages, retentionDays, tellOfRecording }: SchoolLimits) {
  const { register, handleSubmit, formState } = useForm<SchoolLimits>({
    defaultValues: { maxUploadMb, maxPages, retentionDays, tellOfRecording },
  });
  const [problem, setProblem] = useState<string>();
  const client = useQueryClient();
  const submit = handleSubmit((wanted) => {
    setProblem(undefined);
    return setLimits(wanted).then(
      () => {
        toast(t('school.limitsAreKept'));
        return client.invalidateQueries({ queryKey: schoolHealthQuery.queryKey });
      },
      (error: Error) => setProblem(error.message),
    );
  });
  return (
    <form onSubmit={(event) => void submit(event)} noValidate>
      <div className="grid gap-x-4 sm:grid-cols-3 sm:items-end">
        {(Object.keys(LABELS) as LimitName[]).map((name) => (
          <TextField
            key={name}
            label={LABELS[name]}
            type="number"
            inputMode="numeric"
            min={LIMITS[name].least}
            max={LIMITS[name].most}
            {...register(name, { valueAsNumber: true })}
          />
        ))}
      </div>
      <p className="mb-4 text-sm text-ink-soft">{t('school.daysKeptHint')}</p>
      <label className="mb-4 flex min-h-11 items-center gap-3">
        <input type="checkbox" className="size-5" {...register('tellOfRecording')} />
        {t('school.tellOfRecording')}
      </label>
      <Problem>{problem}</Problem>
      <Button type="submit" disabled={formState.isSubmitting}>
        {t('school.keepLimits')}
      </Button>
    </form>
  );
}
