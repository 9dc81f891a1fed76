import { useEffect, useState } from 'react';
import { NO_CLASS } from '@doodla/core/client';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { useTitle } from '../ui/useTitle';
import { announce, pageSentence } from './announcements';
import { t } from '../words';
import { sayMark } from '../words/marks';

/** Others' marks are told at most so often, together. */
const EVERY_MS = 3000;

/** Tells screen readers what others add to the page, and what else changes; the window's title says where one is. */
export default function Announcer({ desk, lesson }: { desk: PageDesk; lesson: string | undefined }) {
  const [words, setWords] = useState('');
  const [change, setChange] = useState('');
  useEffect(() => announce(desk, setChange), [desk]);
  useTitleOfPage(desk, lesson);
  useEffect(() => {
    let news: string[] = [];
    const stop = desk.room.added.subscribe((mark) => {
      if (mark.page === desk.pageId.get())
        news.push(t('pages.markBy', { mark: sayMark(mark), name: desk.room.makerOf(mark) }));
    });
    const timer = setInterval(() => {
      if (news.length > 0)
        setWords(news.length > 3 ? t('pages.newMarks', { count: news.length }) : news.join('; '));
      news = [];
    }, EVERY_MS);
    return () => {
      stop();
      clearInterval(timer);
    };
  }, [desk]);
  return (
    <>
      <p aria-live="polite" className="sr-only" data-testid="change">
        {change}
      </p>
      <p aria-live="polite" className="sr-only">
        {words}
      </p>
    </>
  );
}

/** Lesson or class, and page, in the title of the window. */
function useTitleOfPage(desk: PageDesk, lesson: string | undefined): void {
  useStore(desk.pageId);
  useStore(desk.pages);
  const { title } = useStore(desk.classroom?.state ?? NO_CLASS) ?? {};
  useTitle(pageSentence(desk), title ?? lesson);
}
