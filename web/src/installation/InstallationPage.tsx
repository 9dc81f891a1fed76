import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { installationQuery } from '../api/installation';
import { SignOutButton } from '../people/SignOutButton';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { useTitle } from '../ui/useTitle';
import { t } from '../words';
import { NewSchoolForm } from './NewSchoolForm';
import { gigabytes } from '../ui/gigabytes';
import { SchoolSheet } from './SchoolSheet';
import { SchoolTable } from './SchoolTable';

/** For whoever looks after the installation: its schools from outside, in figures. */
export default function InstallationPage({ name }: { name: string }) {
  useTitle(t('installation.title'));
  const figures = useQuery(installationQuery);
  // In the address, so that it is open again after a reload.
  const [params, setParams] = useSearchParams();
  const choose = (id?: string) => setParams(id === undefined ? {} : { school: id }, { replace: true });
  const [isMaking, setMaking] = useState(false);
  const schools = figures.data?.schools ?? [];
  const school = schools.find(({ id }) => id === params.get('school'));
  return (
    <div className="min-h-full">
      <header className="flex flex-wrap items-center gap-3 bg-board px-4 py-3 text-paper sm:px-8">
        <h1 className="grow text-2xl font-bold">{t('installation.title')}</h1>
        <span>{name}</span>
        <SignOutButton />
      </header>
      <main className="mx-auto max-w-6xl p-4 sm:p-8">
        <Problem>{figures.error?.message}</Problem>
        {figures.data && (
          <p className="mb-6 text-ink-soft">
            {[
              t('school.freeOnTheDisk', { gb: gigabytes(figures.data.free) }),
              t('school.failures', { count: figures.data.failures }),
              ...(figures.data.processes.length > 0
                ? [t('installation.processes', { count: figures.data.processes.length })]
                : []),
            ].join(' · ')}
          </p>
        )}
        <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
          <h2 className="text-xl font-bold">{t('installation.schools')}</h2>
          <Button look="main" onClick={() => setMaking(true)}>
            {t('installation.newSchool')}
          </Button>
        </div>
        <SchoolTable schools={schools} onChoose={choose} />
        <p className="mt-4 text-sm text-ink-soft">{t('installation.figuresOnly')}</p>
      </main>
      <Modal title={t('installation.newSchool')} open={isMaking} onOpenChange={setMaking}>
        <NewSchoolForm />
      </Modal>
      {school && (
        <Modal wide title={school.name || t('installation.unnamed')} open onOpenChange={() => choose()}>
          <SchoolSheet key={school.id} school={school} onErased={() => choose()} />
        </Modal>
      )}
    </div>
  );
}
