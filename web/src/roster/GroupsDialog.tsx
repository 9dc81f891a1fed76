import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Group } from '@doodla/core';
import { useState } from 'react';
import { addGroup, changeGroup, groupsQuery, removeGroup } from '../api/groups';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { spacedCode } from '../ui/spacedCode';
import { t } from '../words';
import { GroupForm } from './GroupForm';

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
