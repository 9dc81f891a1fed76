import type { SchoolDeed, SchoolDeedKind, SchoolHealth, SchoolTeacher } from '@doodla/core';
import { useQuery } from '@tanstack/react-query';
import { ArrowLeft } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { inviteTeacher, schoolHealthQuery, teachersQuery } from '../api/school';
import { Problem } from '../ui/Problem';
import { gigabytes } from '../ui/gigabytes';
import { useTitle } from '../ui/useTitle';
import { t } from '../words';
import { dateAndTime } from '../words/dates';
import { LimitsForm } from './LimitsForm';
import { SchoolNameForm } from './SchoolNameForm';
import { InviteForm } from '../people/InviteForm';
import { OnceLink } from '../people/OnceLink';
import { TeacherRow } from './TeacherRow';

/** For whoever looks after the school: its teachers, and how the server is. */
export default function SchoolPage({ me }: { me: string }) {
  useTitle(t('school.theSchool'));
  const teachers = useQuery(teachersQuery);
  const health = useQuery(schoolHealthQuery);
  const [link, setLink] = useState<{ for: string; url: string }>();
  return (
    <div className="min-h-full">
      <header className="flex items-center gap-3 bg-board px-4 py-3 text-paper sm:px-8">
        <Link to="/" aria-label={t('ui.goToYourLessons')} className="grid size-11 place-items-center">
          <ArrowLeft aria-hidden />
        </Link>
        <h1 className="text-2xl font-bold">{health.data?.name || t('school.theSchool')}</h1>
      </header>
      <main className="mx-auto max-w-4xl p-4 sm:p-8">
        <h2 className="mb-3 text-xl font-bold">{t('school.teachers')}</h2>
        <Problem>{teachers.error?.message}</Problem>
        <Teachers all={teachers.data ?? []} me={me} onLink={setLink} />
        {link && <OnceLink {...link} />}
        <h2 className="mt-8 mb-3 text-xl font-bold">{t('school.inviteSomebody')}</h2>
        <InviteForm
          nameLabel={t('school.name')}
          emailLabel={t('people.eMailAddress')}
          invite={inviteTeacher}
        />
        <h2 className="mt-8 mb-3 text-xl font-bold">{t('school.nameOfIt')}</h2>
        {health.data && <SchoolNameForm key={health.data.name} name={health.data.name} />}
        <h2 className="mt-8 mb-3 text-xl font-bold">{t('school.limitsOfTheSchool')}</h2>
        {health.data && <LimitsForm {...health.data} />}
        <h2 className="mt-8 mb-3 text-xl font-bold">{t('school.theServer')}</h2>
        <Problem>{health.error?.message}</Problem>
        {health.data && <Health health={health.data} />}
        {health.data && health.data.deeds.length > 0 && <Deeds deeds={health.data.deeds} />}
      </main>
    </div>
  );
}

interface TeachersProps {
  all: readonly SchoolTeacher[];
  me: string;
  onLink(link: { for: string; url: string }): void;
}

function Teachers({ all, me, onLink }: TeachersProps) {
  return (
    <ul className="flex flex-col gap-2">
      {all.map((teacher) => (
        <TeacherRow
          key={teacher.id}
          teacher={teacher}
          isMe={teacher.id === me}
          others={all.filter(({ id }) => id !== teacher.id)}
          onLink={onLink}
        />
      ))}
    </ul>
  );
}

function Health({ health }: { health: SchoolHealth }) {
  const { bytes, maxBytes, free, failures, cleared } = health;
  return (
    <>
      <ul className="mb-4 list-disc ps-6">
        <li>
          {maxBytes === null
            ? t('school.bytesUsed', { gb: gigabytes(bytes) })
            : t('school.bytesOf', { gb: gigabytes(bytes), most: gigabytes(maxBytes) })}
        </li>
        <li>{t('school.freeOnTheDisk', { gb: gigabytes(free) })}</li>
        <li>{t('school.failures', { count: failures })}</li>
      </ul>
      <h3 className="mb-2 font-bold">{t('school.clearedAway')}</h3>
      {cleared.length === 0 ? (
        <p>{t('school.nothingYet')}</p>
      ) : (
        <ul className="max-h-60 overflow-auto rounded-xl bg-paper-dim p-3">
          {cleared.map(({ at, classes, lessons, files, bytes }) => (
            <li key={at}>
              {files === null || bytes === null
                ? t('school.clearedOfSchool', { when: dateAndTime(at), classes, lessons })
                : t('school.cleared', {
                    when: dateAndTime(at),
                    classes,
                    lessons,
                    files,
                    mb: Math.ceil(bytes / 1e6),
                  })}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

const DEEDS: Record<SchoolDeedKind, string> = {
  made: t('school.deedMade'),
  named: t('school.deedNamed'),
  given: t('school.deedGiven'),
  signIn: t('school.deedSignIn'),
  invited: t('school.deedInvited'),
  closed: t('school.deedClosed'),
  opened: t('school.deedOpened'),
};

/** What whoever looks after the installation did to the school. */
function Deeds({ deeds }: { deeds: readonly SchoolDeed[] }) {
  return (
    <>
      <h3 className="mt-6 mb-2 font-bold">{t('school.deeds')}</h3>
      <ul className="max-h-60 overflow-auto rounded-xl bg-paper-dim p-3">
        {deeds.map(({ at, kind, what, by }) => (
          <li key={`${at} ${kind}`}>
            {dateAndTime(at)}: {DEEDS[kind]}
            {what !== '' && ` (${what})`} – {by}
          </li>
        ))}
      </ul>
    </>
  );
}
