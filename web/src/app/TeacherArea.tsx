import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { lazy, useEffect } from 'react';
import { Navigate, Route, Routes, useLocation } from 'react-router';
import { meQuery } from '../api/people';
import { SetupPage } from '../people/SetupPage';
import { SignInPage } from '../people/SignInPage';
import { Button } from '../ui/Button';
import { Front } from '../ui/Front';
import { waitForNothing } from '../ui/moments';
import { Lost } from './Lost';
import { t } from '../words';

const startPage = () => import('../lessons/StartPage');
const StartPage = lazy(startPage);
const ComparePage = lazy(() => import('../classroom/ComparePage'));
const InstallationPage = lazy(() => import('../installation/InstallationPage'));
const PreparePage = lazy(() => import('../classroom/PreparePage'));
const SchoolPage = lazy(() => import('../school/SchoolPage'));
const SchoolSignInPage = lazy(() => import('../people/SchoolSignInPage'));
const TeachPage = lazy(() => import('../classroom/TeachPage'));

const queryClient = new QueryClient({ defaultOptions: { queries: { retry: 1 } } });

// Fetched while it is not known yet who is here; what fails is asked for again when it is wanted.
void queryClient.prefetchQuery(meQuery);
if (location.pathname === '/') startPage().catch(() => undefined);

/** All that needs a signed-in teacher, behind its doors. */
export default function TeacherArea() {
  useEffect(waitForNothing, []);
  return (
    <QueryClientProvider client={queryClient}>
      <Doors />
    </QueryClientProvider>
  );
}

function Doors() {
  const me = useQuery(meQuery);
  const { pathname } = useLocation();
  if (me.isPending) return <p className="p-8 text-lg">{t('common.opening')}</p>;
  if (me.isError) {
    return (
      <Front title={t('app.doodlaCannotBeReached')}>
        <p className="mb-4">{me.error.message}</p>
        <Button onClick={() => void me.refetch()}>{t('app.tryAgain')}</Button>
      </Front>
    );
  }
  if (me.data.needsSetup) return <SetupPage />;
  if (me.data.operator) return <InstallationPage {...me.data.operator} />;
  if (!me.data.teacher)
    return (
      <Routes>
        <Route path="at/:slug" element={<SchoolSignInPage />} />
        <Route path="*" element={<SignInPage {...me.data} />} />
      </Routes>
    );
  if (/^\/(sign-in$|setup$|at\/)/.test(pathname)) return <Navigate to="/" replace />;
  return (
    <Routes>
      <Route index element={<StartPage teacher={me.data.teacher} />} />
      <Route path="lesson/:lesson" element={<PreparePage />} />
      <Route path="lesson/:lesson/compare" element={<ComparePage />} />
      <Route path="sitting/:sitting" element={<TeachPage />} />
      {me.data.teacher.admin && <Route path="school" element={<SchoolPage me={me.data.teacher.id} />} />}
      <Route path="*" element={<Lost />} />
    </Routes>
  );
}
