import type { Mark, ReadingPart } from '@doodla/core';
import { readingOf } from '@doodla/core';
import { memo, useEffect, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { pageSentence } from './announcements';
import { t } from '../words';
import { sayPart } from '../words/marks';

/** Marks come and go quickly; what is read follows a little later. */
const FOLLOWS_MS = 600;

type MarkPart = Extract<ReadingPart, { kind: 'mark' }>;

/** The page for those who hear it: its words in the order in which they are read, with the marks among them. */
export default function PageReading({ desk }: { desk: PageDesk }) {
  useStore(desk.pageId);
  useStore(desk.pages);
  useStore(desk.surfaces.wordsChanged);
  useSettled(desk);
  const { page } = desk;
  if (!page) return null;
  const marks = desk.layers.flatMap((layer) => layer.on(page.id).all());
  const parts = readingOf(desk.surfaces.wordsOf(page), marks);
  const makers = new Map<string, string>();
  const makerOf = (mark: Mark) => {
    const key = mark.credit ?? mark.author;
    const name = makers.get(key) ?? desk.room.makerOf(mark);
    makers.set(key, name);
    return name;
  };
  return (
    <section aria-label={t('pages.whatThePageSays')} className="sr-only">
      <h2>{pageSentence(desk)}</h2>
      {parts.length === 0 && <p>{t('pages.thereIsNothingOnThis')}</p>}
      {parts.map((part, i) => (
        <p key={part.kind === 'mark' ? part.mark.id : i}>
          {part.kind === 'line' && part.text}
          {part.kind === 'mark' && <MarkRead part={part} by={makerOf(part.mark)} />}
          {part.kind === 'more' && t('pages.andMoreMarks', { count: part.count })}
        </p>
      ))}
    </section>
  );
}

/** A mark as it is read out: of hundreds few change at a time. */
const MarkRead = memo(
  function MarkRead({ part, by }: { part: MarkPart; by: string }) {
    return t('pages.markBy', { mark: sayPart(part), name: by });
  },
  (before, after) =>
    before.by === after.by &&
    before.part.mark === after.part.mark &&
    before.part.touched?.act === after.part.touched?.act &&
    before.part.touched?.words === after.part.touched?.words,
);

/** Draws anew a moment after marks have changed. */
function useSettled({ marksChanged }: PageDesk): void {
  const [, settle] = useState(0);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const stop = marksChanged.subscribe(() => {
      timer ??= setTimeout(() => {
        timer = undefined;
        settle(marksChanged.get());
      }, FOLLOWS_MS);
    });
    return () => {
      stop();
      clearTimeout(timer);
    };
  }, [marksChanged]);
}
