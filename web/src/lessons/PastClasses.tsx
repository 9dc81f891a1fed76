import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { pastSittingsQuery } from '../api/lessons';
import { Cover } from './Cover';
import { t } from '../words';
import { timeSince } from '../words/dates';

/** Shown at once. */
const MOST = 4;

/** The last class of each group, one tap away. */
export function PastClasses() {
  const { data = [] } = useQuery({ ...pastSittingsQuery, refetchOnMount: 'always' });
  if (data.length === 0) return null;
  return (
    <section aria-labelledby="past-classes" className="mb-6">
      <h2 id="past-classes" className="mb-2 text-xl font-bold">
        {t('lessons.lastClasses')}
      </h2>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-3">
        {data.slice(0, MOST).map(({ id, title, lessonTitle, groupTitle, openedAt }) => (
          <li key={id}>
            <Link
              to={`/sitting/${id}`}
              className="flex h-full items-center gap-3 overflow-hidden rounded-2xl border-2 border-transparent bg-white pe-3 shadow-md hover:border-board"
            >
              <Cover src={`/api/sittings/${id}/cover`} className="size-20 shrink-0" />
              <span className="min-w-0 py-1">
                <span className="line-clamp-2 leading-snug font-bold">{groupTitle ?? title}</span>
                <span className="block truncate text-ink-soft">
                  {groupTitle === null ? timeSince(openedAt) : `${lessonTitle}, ${timeSince(openedAt)}`}
                </span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
