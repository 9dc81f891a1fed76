import type { SchoolTeacher } from '@doodla/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { resetPassword, setAdmin, takeTeacherOut, teachersQuery } from '../api/school';
import { Button } from '../ui/Button';
import { SelectField } from '../ui/SelectField';
import { Tick } from '../ui/Tick';
import { t } from '../words';

interface TeacherRowProps {
  teacher: SchoolTeacher;
  isMe: boolean;
  others: readonly SchoolTeacher[];
  onLink(link: { for: string; url: string }): void;
}

/** A teacher of the school, with what can be done for them. */
export function TeacherRow({ teacher, isMe, others, onLink }: TeacherRowProps) {
  const { id, name, email, admin, lessons, bytes } = teacher;
  const [isLeaving, setLeaving] = useState(false);
  const client = useQueryClient();
  const attempt = (task: Promise<unknown>) => {
    task
      .then(() => client.invalidateQueries({ queryKey: teachersQuery.queryKey }))
      .catch((error: Error) => toast.error(error.message));
  };
  const reset = () => attempt(resetPassword(id).then(({ url }) => onLink({ for: name, url })));
  return (
    <li className="rounded-xl bg-white p-4 shadow">
      <p>
        <span className="font-bold">{name}</span> {isMe && t('school.thatIsYou')}
        <span className="ms-2 text-ink-soft">{email}</span>
      </p>
      <p className="text-sm text-ink-soft">
        {t('school.lessons', { count: lessons })}, {Math.ceil(bytes / 1e6)} MB
      </p>
      <div className="flex flex-wrap items-center gap-x-6 *:mb-0">
        <Tick checked={admin} onChange={(on) => attempt(setAdmin(id, on))}>
          {t('school.looksAfter')}
        </Tick>
        <Button onClick={reset}>{t('school.newPassword')}</Button>
        {!isMe && others.length > 0 && (
          <Button onClick={() => setLeaving(!isLeaving)}>{t('school.leaves')}</Button>
        )}
      </div>
      {isLeaving && (
        <Leaving
          others={others}
          onLeave={(to) => attempt(takeTeacherOut(id, to))}
          onCancel={() => setLeaving(false)}
        />
      )}
    </li>
  );
}

interface LeavingProps {
  others: readonly SchoolTeacher[];
  onLeave(to: string): void;
  onCancel(): void;
}

function Leaving({ others, onLeave, onCancel }: LeavingProps) {
  const [to, setTo] = useState(others[0]!.id);
  return (
    <div className="mt-3 rounded-xl bg-paper-dim p-3">
      <SelectField
        label={t('school.whoTakesOver')}
        value={to}
        options={others.map(({ id, name }) => ({ value: id, name }))}
        hint={t('school.everythingGoesTo')}
        onChange={(chosen) => setTo(String(chosen))}
      />
      <div className="flex gap-3">
        <Button look="main" onClick={() => onLeave(to)}>
          {t('school.takeOut')}
        </Button>
        <Button onClick={onCancel}>{t('common.cancel')}</Button>
      </div>
    </div>
  );
}
