import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { DoorRequest } from '@doodla/core';
import { ListChecks } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import type { FormEvent } from 'react';
import { groupsQuery } from '../api/groups';
import { setDoor, sittingQuery } from '../api/lessons';
import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Switch } from '../ui/Switch';
import { t } from '../words';

const GroupsDialog = lazy(() => import('./GroupsDialog'));

const FIELD = 'min-h-11 min-w-0 grow rounded-xl border-2 border-paper-line bg-white px-3';

/** Who is let in of those who have the code. */
export function DoorSection({ room }: { room: Room }) {
  const sitting = room.sitting!;
  const state = useStore(room.classroom!.state);
  const client = useQueryClient();
  const { data: groups = [] } = useQuery(groupsQuery);
  const [problem, setProblem] = useState<string>();
  const [lists, setLists] = useState(false);
  const set = (door: DoorRequest) =>
    setDoor(sitting, door).then(
      () => {
        setProblem(undefined);
        // A group may keep a code of its own.
        if (door.group !== undefined) void client.invalidateQueries(sittingQuery(sitting));
      },
      (error: Error) => setProblem(error.message),
    );
  return (
    <section aria-label={t('roster.theDoor')} className="mt-5 border-t-2 border-paper-line pt-3">
      <Problem>{problem}</Problem>
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex min-w-0 grow items-center gap-2">
          <span className="font-bold">{t('roster.group')}</span>
          <select
            value={state?.group?.id ?? ''}
            onChange={(event) => void set({ group: event.target.value || null })}
            className={FIELD}
          >
            <option value="">{t('roster.noGroup')}</option>
            {groups.map(({ id, title }) => (
              <option key={id} value={id}>
                {title}
              </option>
            ))}
          </select>
        </label>
        <Button icon={<ListChecks aria-hidden size={18} />} onClick={() => setLists(true)}>
          {t('roster.classLists')}
        </Button>
      </div>
      <Switch
        label={t('roster.whoeverComesWaits')}
        checked={state?.nodding ?? false}
        onChange={(on) => void set({ nodding: on })}
      />
      <Switch
        label={t('classroom.letNobodyElseIn')}
        checked={state?.locked ?? false}
        onChange={(on) => void set({ locked: on })}
      />
      <PasswordField has={state?.hasPassword ?? false} onSet={(password) => void set({ password })} />
      {lists && (
        <Suspense>
          <GroupsDialog onClose={() => setLists(false)} />
        </Suspense>
      )}
    </section>
  );
}

function PasswordField({ has, onSet }: { has: boolean; onSet(password: string): void }) {
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    onSet(new FormData(form).get('password') as string);
    form.reset();
  };
  if (has)
    return (
      <div className="flex min-h-11 items-center justify-between gap-3">
        <span className="text-sm">{t('roster.aPasswordIsNeeded')}</span>
        <Button onClick={() => onSet('')}>{t('roster.noPassword')}</Button>
      </div>
    );
  return (
    <form onSubmit={submit} className="flex items-center gap-2">
      <input
        name="password"
        aria-label={t('roster.passwordOfThisClass')}
        placeholder={t('roster.passwordOfThisClass')}
        autoComplete="off"
        maxLength={100}
        required
        className={FIELD}
      />
      <Button type="submit">{t('roster.setPassword')}</Button>
    </form>
  );
}
