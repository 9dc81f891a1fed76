import type { Mark } from '@doodla/core';
import { checkMarks, toWebAnnotation } from '@doodla/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { TriangleAlert, X } from 'lucide-react';
import { useRef } from 'react';
import { useStore, useStoreByFrame } from '../store/useStore';
import { Button } from '../ui/Button';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import { sayLack, sayMark } from '../words/marks';

/** Usual height of an entry, CSS pixels. */
const ROW = 52;

interface MarkListProps {
  desk: PageDesk;
  side: 'left' | 'right';
  onClose(): void;
}

/** What is on the page, as a list for keyboard and screen reader, with what is missing. */
export default function MarkList({ desk, side, onClose }: MarkListProps) {
  useStoreByFrame(desk.marksChanged);
  useStore(desk.pageId);
  const selected = useStore(desk.selection.ids);
  const { page } = desk;
  const marks = page ? desk.layers.flatMap((layer) => layer.on(page.id).all()) : [];
  const findings = new Map(
    page ? checkMarks(marks, page).map(({ mark, problem }) => [mark, sayLack(problem)]) : [],
  );
  const own = new Set((desk.targetMarks?.all() ?? []).map(({ id }) => id));
  const scroller = useRef<HTMLDivElement>(null);
  // No component here is memoized by the compiler.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: marks.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    getItemKey: (index) => marks[index]!.id,
    overscan: 6,
  });
  const items = rows.getVirtualItems();
  const below = rows.getTotalSize() - (items.at(-1)?.end ?? 0);
  const select = (mark: Mark) => {
    desk.takeTool('select');
    desk.selection.select([mark.id]);
  };
  return (
    <aside
      aria-label={t('pages.whatIsOnThisPage')}
      className={`absolute top-16 bottom-20 z-30 flex w-72 max-w-[calc(100vw-1rem)] compact:top-13 compact:bottom-26 flex-col rounded-2xl border-2 border-board-line bg-paper p-3 shadow-xl ${side === 'left' ? 'left-2' : 'right-2'}`}
    >
      <div className="mb-2 flex items-center justify-between">
        <h2 className="text-lg font-bold">{t('pages.onThisPage', { count: marks.length })}</h2>
        <button
          type="button"
          aria-label={t('pages.closeTheList')}
          onClick={onClose}
          className="grid size-11 place-items-center rounded-xl hover:bg-paper-dim"
        >
          <X aria-hidden size={20} />
        </button>
      </div>
      <p role="status" className="mb-2 text-sm text-ink-soft">
        {findings.size === 0
          ? t('pages.allTextStandsOutEnough')
          : t('pages.toLookAfterForThose', { count: findings.size })}
      </p>
      {page?.surface.kind === 'web' && marks.some(({ kind }) => kind === 'quote') && (
        <Button className="mb-2" onClick={() => void saveAnnotations(desk, marks)}>
          {t('pages.saveTheMarkedWords')}
        </Button>
      )}
      <div ref={scroller} className="grow overflow-auto">
        <ol style={{ paddingTop: items[0]?.start ?? 0, paddingBottom: below }}>
          {items.map(({ index }) => {
            const mark = marks[index]!;
            return (
              <li
                key={mark.id}
                ref={rows.measureElement}
                data-index={index}
                aria-posinset={index + 1}
                aria-setsize={marks.length}
              >
                <button
                  type="button"
                  aria-pressed={selected.has(mark.id)}
                  disabled={!own.has(mark.id) || !desk.mayWrite || !desk.maySelect(mark)}
                  onClick={() => select(mark)}
                  className="min-h-11 w-full rounded-xl px-2 py-1 text-start enabled:hover:bg-paper-dim aria-pressed:bg-chalk"
                >
                  <span className="line-clamp-2">{sayMark(mark)}</span>
                  <span className="text-sm text-ink-soft">
                    {t('pages.by', { name: desk.room.makerOf(mark) })}
                  </span>
                  {findings.has(mark.id) && (
                    <span className="flex items-start gap-1 text-sm font-bold text-alarm">
                      <TriangleAlert aria-hidden size={16} className="mt-0.5 shrink-0" />
                      {findings.get(mark.id)}
                    </span>
                  )}
                </button>
              </li>
            );
          })}
        </ol>
      </div>
    </aside>
  );
}

/** Saves marked words as W3C Web Annotations (JSON-LD), which other programs read. */
async function saveAnnotations(desk: PageDesk, marks: readonly Mark[]): Promise<void> {
  const surface = desk.page?.surface;
  if (surface?.kind !== 'web' && surface?.kind !== 'pdf') return;
  const address = surface.kind === 'web' ? await desk.room.webPages.source(surface.material) : undefined;
  const source = address ?? `urn:doodla:page:${surface.material}`;
  const annotations = marks.flatMap((mark) => (mark.kind === 'quote' ? [toWebAnnotation(mark, source)] : []));
  const link = document.createElement('a');
  link.href = URL.createObjectURL(
    new Blob([JSON.stringify(annotations, null, 2)], { type: 'application/ld+json' }),
  );
  link.download = 'marked-words.jsonld';
  link.click();
  URL.revokeObjectURL(link.href);
}
