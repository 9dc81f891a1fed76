import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Group, GroupRequest } from '@doodla/core';
import { namesIn } from '@doodla/core';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { addGroup, changeGroup, groupsQuery, removeGroup } from '../api/groups';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { spacedCode } from '../ui/spacedCode';
import { TextField } from '../ui/TextField';
import { Tick } from '../ui/Tick';
import { t } from '../words';

/** The teacher's class lists: pasted once, used all term. */
export default function GroupsDialog({ onClose }: { onClose(): void }) {
  const { data: groups = [], error } = useQuery(groupsQuery);
  const client = useQueryClient();
  const [editing, setEditing] = useState<Group | 'new'>();
  const [problem, setProblem] = useState<string>();
  const done = (work: Promise<unknown>) =>
    work.then(
      () => {
        setProblem(undefined);
        setEditing(undefined);
        return client.invalidateQueries(groupsQuery);
      },
      (failed: Error) => setProblem(failed.message),
    );
  return (
    <Modal title={t('roster.classLists')} description={t('roster.aListOfNames')} open onOpenChange={onClose}>
      <Problem>{problem ?? error?.message}</Problem>
      {editing ? (
        <GroupForm
          group={editing === 'new' ? undefined : editing}
          onSave={(group) => void done(editing === 'new' ? addGroup(group) : changeGroup(editing.id, group))}
          onDelete={() => editing !== 'new' && void done(removeGroup(editing.id))}
          onCancel={() => setEditing(undefined)}
        />
      ) : (
        <>
          <ul className="mb-4 flex flex-col gap-1">
            {groups.map((group) => (
              <li key={group.id}>
                <button
                  type="button"
                  onClick={() => setEditing(group)}
                  className="flex min-h-12 w-full items-center justify-between gap-3 rounded-xl bg-paper-dim px-3 text-start"
                >
                  <span className="truncate font-bold">{group.title}</span>
                  <span className="shrink-0 text-ink-soft">
                    {t('roster.names', { count: group.names.length })}
                    {group.code && ` · ${spacedCode(group.code)}`}
                  </span>
                </button>
              </li>
            ))}
          </ul>
          <Button look="main" onClick={() => setEditing('new')}>
            {t('roster.newList')}
          </Button>
        </>
      )}
    </Modal>
  );
}

interface GroupFormProps {
  group: Group | undefined;
  onSave(group: GroupRequest): void;
  onDelete(): void;
  onCancel(): void;
}

function GroupForm({ group, onSave, onDelete, onCancel }: GroupFormProps) {
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
        rows={8}
        className="mb-1 w-full rounded-xl border-2 border-paper-line bg-white p-3"
      />
      <p role="status" className="mb-3 text-ink-soft">
        {t('roster.names', { count: names.length })}
      </p>
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
