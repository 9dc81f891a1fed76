import { describeMark } from '@doodla/core';
import { useEffect, useState } from 'react';
import type { Workspace } from '../workspace/workspace';

/** Others' marks are told at most so often, together. */
const EVERY_MS = 3000;

/** Tells screen readers what others add to the page. */
export default function Announcer({ workspace }: { workspace: Workspace }) {
  const [words, setWords] = useState('');
  useEffect(() => {
    let news: string[] = [];
    const stop = workspace.added.subscribe((mark) =>
      news.push(`${describeMark(mark)}, by ${workspace.nameOf(mark.author)}`),
    );
    const timer = setInterval(() => {
      if (news.length > 0) setWords(news.length > 3 ? `${news.length} new marks` : news.join('; '));
      news = [];
    }, EVERY_MS);
    return () => {
      stop();
      clearInterval(timer);
    };
  }, [workspace]);
  return (
    <p aria-live="polite" className="sr-only">
      {words}
    </p>
  );
}
