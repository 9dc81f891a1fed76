import type { Group, GroupRequest } from '@doodla/core';
import { namesIn } from '@doodla/core';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { Button } from '../ui/Button';
import { TextField } from '../ui/TextField';
import { Tick } from '../ui/Tick';
import { t } from '../words';
import { ClassFile } from './ClassFile';

interface GroupFormProps {
  group: Group | undefined;
  onSave(group: GroupRequest): void;
  onDelete(): void;
  onCancel(): void;
}

/** A class list: the group's name and its students, pasted or from a file. */
export function GroupForm({ group, onSave, onDelete, onCancel }: GroupFormProps) {
  const [pasted, setPasted] = useState(group?.names.join('\n') ?? '');
  const [keepsCode, setKeepsCode] = useState((group?.code ?? null) !== null);
  const names = namesIn(pasted);
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const title = new FormData(event.currentTarget).get('title') as string;
    onSave({ title, names, keepsCode });
  };
  return (
    <form onSubmit={submit}>
      <TextField
        label={t('roster.nameOfTheGroup')}
        name="title"
        defaultValue={group?.title}
        maxLength={200}
        required
      />
      <label className="mb-1 block font-bold" htmlFor="class-list">
        {t('roster.studentsOneALine')}
      </label>
      <textarea
        id="class-list"
        value={pasted}
        onChange={(event) => setPasted(event.target.value)}
        rows={6}
        className="mb-1 w-full rounded-xl border-2 border-paper-line bg-white p-3"
      />
      <p role="status" className="mb-3 text-ink-soft">
        {t('roster.names', { count: names.length })}
      </p>
      <ClassFile list={pasted} onNames={(list) => setPasted(list.join('\n'))} />
      <Tick checked={keepsCode} onChange={setKeepsCode}>
        {t('roster.theSameCodeAllTerm')}
      </Tick>
      <div className="mt-3 flex flex-wrap gap-3">
        <Button look="main" type="submit">
          {t('handout.save')}
        </Button>
        <Button onClick={onCancel}>{t('common.cancel')}</Button>
        {group && <Button onClick={onDelete}>{t('common.delete')}</Button>}
      </div>
    </form>
  );
}
