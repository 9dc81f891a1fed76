import { useQuery } from '@tanstack/react-query';
import { Play } from 'lucide-react';
import { Link } from 'react-router';
import { openSittingsQuery } from '../api/lessons';
import { spacedCode } from '../ui/spacedCode';
import { t } from '../words';
import { Rich } from '../words/Rich';
import { timeSince } from '../words/dates';

/** Classes that were not ended, such as by a closed tab or a power cut: nothing of them is lost. */
export function OpenClasses() {
  const { data = [] } = useQuery({ ...openSittingsQuery, refetchOnMount: 'always' });
  if (data.length === 0) return null;
  return (
    <section aria-label={t('lessons.classesThatAreStillOpen')} className="mb-6 flex flex-col gap-2">
      {data.slice(0, 3).map(({ id, title, code, openedAt }) => (
        <Link
          key={id}
          to={`/sitting/${id}`}
          className="flex min-h-14 flex-wrap items-center gap-x-4 gap-y-1 rounded-2xl border-2 border-board bg-white px-4 py-2 hover:bg-paper-dim"
        >
          <Play aria-hidden size={20} />
          <span className="grow">
            <Rich
              text={t('lessons.isStillOpen', { title, when: timeSince(openedAt), code: spacedCode(code) })}
            />
          </span>
          <span className="rounded-xl bg-board px-4 py-2 font-bold text-paper">
            {t('lessons.goOnWithIt')}
          </span>
        </Link>
      ))}
    </section>
  );
}
