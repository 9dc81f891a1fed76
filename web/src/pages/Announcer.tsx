import { describeMark } from '@doodla/core';
import { useEffect, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';

/** Others' marks are told at most so often, together. */
const EVERY_MS = 3000;

/** Tells screen readers what others add to the page. */
export default function Announcer({ desk }: { desk: PageDesk }) {
  const [words, setWords] = useState('');
  useEffect(() => {
    let news: string[] = [];
    const stop = desk.room.added.subscribe((mark) => {
      if (mark.page === desk.pageId.get())
        news.push(`${describeMark(mark)}, by ${desk.room.nameOf(mark.author)}`);
    });
    const timer = setInterval(() => {
      if (news.length > 0) setWords(news.length > 3 ? `${news.length} new marks` : news.join('; '));
      news = [];
    }, EVERY_MS);
    return () => {
      stop();
      clearInterval(timer);
    };
  }, [desk]);
  return (
    <p aria-live="polite" className="sr-only">
      {words}
    </p>
  );
}
