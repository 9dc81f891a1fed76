import { lazy, Suspense } from 'react';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { lazyAfter, pageShows } from '../ui/moments';
import { Broken } from './Broken';
import { Lost } from './Lost';
import { t } from '../words';

const TeacherArea = lazy(() => import('./TeacherArea'));
const JoinPage = lazy(() => import('../classroom/JoinPage'));
/** Nothing is told before the page shows. */
const Toaster = lazyAfter(pageShows, async () => ({ default: (await import('sonner')).Toaster }));
const DisplayPage = lazy(() => import('../devices/DisplayPage'));
const PadPage = lazy(() => import('../devices/PadPage'));
const StudentPage = lazy(() => import('../classroom/StudentPage'));

const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    children: [
      { path: '/join/:code?', element: <JoinPage /> },
      { path: '/display', element: <DisplayPage /> },
      { path: '/pad/:code?', element: <PadPage /> },
      { path: '/class/:sitting', element: <StudentPage /> },
      { path: '/*', element: <TeacherArea /> },
      { path: '*', element: <Lost /> },
    ],
  },
]);

export function App() {
  return (
    <>
      <Suspense fallback={<p className="p-8 text-lg">{t('common.opening')}</p>}>
        <RouterProvider router={router} />
      </Suspense>
      <Suspense>
        <Toaster
          // Above the bars at the lower edge, and away from the buttons of the class.
          containerAriaLabel={t('app.notices')}
          position="bottom-center"
          offset={{ bottom: 80 }}
          mobileOffset={{ bottom: 76 }}
          // Two buttons go under the words, which would have no room beside them.
          toastOptions={{
            style: { fontFamily: 'inherit', fontSize: '1rem', flexWrap: 'wrap' as const },
            classNames: { content: '!min-w-60 !grow', actionButton: '!min-h-9', cancelButton: '!min-h-9' },
          }}
        />
      </Suspense>
    </>
  );
}
