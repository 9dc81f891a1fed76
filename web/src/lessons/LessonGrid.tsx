import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useRef, useState } from 'react';
import type { LessonSummary } from '@doodla/core';
import { LessonCard } from './LessonCard';

/** Least width of a card, the space between two, and a card's height; CSS pixels at 16 px to the letter. */
const CARD = { width: 240, gap: 20, height: 320 };

/** Lessons as cards. Only those that are in sight, or nearly, are made. */
export function LessonGrid({ lessons }: { lessons: readonly LessonSummary[] }) {
  const list = useRef<HTMLUListElement>(null);
  const [{ columns, top }, setPlace] = useState({ columns: 1, top: 0 });
  useLayoutEffect(() => {
    const host = list.current!;
    const measure = () =>
      setPlace({
        columns: Math.max(1, Math.floor((host.clientWidth + CARD.gap) / (CARD.width + CARD.gap))),
        top: host.offsetTop,
      });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(host);
    observer.observe(document.body);
    return () => observer.disconnect();
  }, []);
  const rows = useWindowVirtualizer({
    count: Math.ceil(lessons.length / columns),
    estimateSize: () => CARD.height + CARD.gap,
    overscan: 2,
    scrollMargin: top,
  });
  const items = rows.getVirtualItems();
  const before = (items[0]?.start ?? top) - top;
  const after = rows.getTotalSize() - ((items.at(-1)?.end ?? top) - top);
  const first = (items[0]?.index ?? 0) * columns;
  const shown = lessons.slice(first, ((items.at(-1)?.index ?? -1) + 1) * columns);
  return (
    <ul
      ref={list}
      className="grid gap-x-5"
      style={{
        gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
        paddingTop: before,
        paddingBottom: Math.max(0, after),
      }}
    >
      {shown.map((lesson, i) => (
        <LessonCard key={lesson.id} lesson={lesson} place={first + i + 1} of={lessons.length} />
      ))}
    </ul>
  );
}
