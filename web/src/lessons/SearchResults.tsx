import type { PageHit, SearchReply, SnippetPart } from '@doodla/core';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { searchQuery } from '../api/lessons';
import { t } from '../words';
import { dateAndTime } from '../words/dates';

/** What was found: lessons, classes, and pages with the words that they have. */
export function SearchResults({ question }: { question: string }) {
  const { data, error } = useQuery(searchQuery(question));
  if (error) return <p role="alert">{error.message}</p>;
  if (!data) return <p role="status">{t('lessons.searching')}</p>;
  const { lessons, classes, pages } = data;
  return (
    <div className="flex flex-col gap-6">
      <p role="status" className="text-ink-soft">
        {t('lessons.found', { count: countOf(data) })}
      </p>
      <Hits title={t('lessons.lessons')}>
        {lessons.map(({ lesson, title }) => (
          <Hit key={lesson} to={`/lesson/${lesson}`} title={title} />
        ))}
      </Hits>
      <Hits title={t('lessons.classes')}>
        {classes.map(({ sitting, title, lessonTitle, openedAt, snippet }) => (
          <Hit key={sitting} to={`/sitting/${sitting}`} title={title}>
            {lessonTitle}, {dateAndTime(openedAt)}
            {snippet.length > 0 && (
              <span className="block">
                {t('lessons.inTheNotes')} <Snippet parts={snippet} />
              </span>
            )}
          </Hit>
        ))}
      </Hits>
      <Hits title={t('lessons.pages')}>
        {pages.map((hit) => (
          <Hit key={`${hit.sitting} ${hit.page}`} to={addressOf(hit, question)} title={titleOf(hit)}>
            <Snippet parts={hit.snippet} />
          </Hit>
        ))}
      </Hits>
    </div>
  );
}

const countOf = ({ lessons, classes, pages }: SearchReply) => lessons.length + classes.length + pages.length;

function addressOf({ lesson, sitting, page }: PageHit, question: string): string {
  const at = new URLSearchParams({ page, find: question });
  return sitting === null ? `/lesson/${lesson}?${at}` : `/sitting/${sitting}?${at}`;
}

function titleOf({ lessonTitle, sittingTitle, number }: PageHit): string {
  return t('lessons.pageOf', { number, title: sittingTitle ?? lessonTitle });
}

function Hits({ title, children }: { title: string; children: ReactNode[] }) {
  if (children.length === 0) return null;
  return (
    <section aria-label={title}>
      <h2 className="mb-2 text-xl font-bold">{title}</h2>
      <ul className="flex flex-col gap-2">{children}</ul>
    </section>
  );
}

function Hit({ to, title, children }: { to: string; title: string; children?: ReactNode }) {
  return (
    <li>
      <Link
        to={to}
        className="flex min-h-14 flex-col justify-center rounded-2xl border-2 border-transparent bg-white px-4 py-2 shadow-sm hover:border-board"
      >
        <span className="font-bold">{title}</span>
        {children && <span className="text-ink-soft">{children}</span>}
      </Link>
    </li>
  );
}

function Snippet({ parts }: { parts: readonly SnippetPart[] }) {
  return parts.map(({ words, hit }, i) =>
    hit ? (
      <mark key={i} className="rounded bg-paper-dim px-0.5 font-bold text-ink">
        {words}
      </mark>
    ) : (
      <span key={i}>{words}</span>
    ),
  );
}
