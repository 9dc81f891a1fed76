import type { ComponentType } from 'react';
import { Suspense } from 'react';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { lazyAfter, pageShows } from '../ui/moments';
import { Broken } from './Broken';
import { Lost } from './Lost';
import { t } from '../words';

/** Nothing is told before the page shows. */
const Toaster = lazyAfter(pageShows, async () => ({ default: (await import('sonner')).Toaster }));

/** The router fetches a page before it shows it: what React waits for while something else shows comes 0.3 s late. */
const page = (load: () => Promise<{ default: ComponentType }>) => async () => ({
  Component: (await load()).default,
});

const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    HydrateFallback: Opening,
    children: [
      { path: '/join/:code?', lazy: page(() => import('../classroom/JoinPage')) },
      { path: '/display', lazy: page(() => import('../devices/DisplayPage')) },
      { path: '/pad/:code?', lazy: page(() => import('../devices/PadPage')) },
      { path: '/companion', lazy: page(() => import('../devices/CompanionPage')) },
      { path: '/invited/:token', lazy: page(() => import('../people/InvitedPage')) },
      { path: '/see/:token', lazy: page(() => import('../shared/SharedPage')) },
      { path: '/class/:sitting', lazy: page(() => import('../classroom/StudentPage')) },
      { path: '/*', lazy: page(() => import('./TeacherArea')) },
      { path: '*', element: <Lost /> },
    ],
  },
]);

export function App() {
  return (
    <>
      <Suspense fallback={<Opening />}>
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

function Opening() {
  return <p className="p-8 text-lg">{t('common.opening')}</p>;
}
