import { Suspense } from 'react';
import { useStore } from '../store/useStore';
import type { PageDesk } from '../room/pageDesk';
import { lazyAfter, pageShows } from '../ui/moments';
import { t } from '../words';

const HeldWork = lazyAfter(pageShows, () => import('./HeldWork'));

/**
 * A quiet sign while the connection is away or work is still to be sent. It comes with the page:
 * without a connection it could not be fetched (nor could an icon).
 */
export function ConnectionSign({ desk }: { desk: PageDesk }) {
  const connection = useStore(desk.connection.status);
  const { waiting, held } = useStore(desk.target.status);
  if (held)
    return (
      <Suspense>
        <HeldWork desk={desk} waiting={waiting} why={held} />
      </Suspense>
    );
  if (connection === 'online' || connection === 'connecting') return null;
  return (
    <p
      role="status"
      className="pointer-events-none absolute top-16 left-1/2 z-30 -translate-x-1/2 rounded-full border-2 border-alarm bg-paper px-4 py-1.5 font-bold text-ink"
    >
      {connection === 'rejected'
        ? t('classroom.youAreNoLongerSigned')
        : t(waiting > 0 ? 'classroom.noConnectionWaiting' : 'classroom.noConnection', { count: waiting })}
    </p>
  );
}
