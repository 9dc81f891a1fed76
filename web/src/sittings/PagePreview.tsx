import type { Page } from '@doodla/core';
import { useEffect, useRef } from 'react';
import { drawThumbnail } from '../room/thumbnail';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

const WIDTH = 150;

/** A small picture of a page with what is written on it. */
export function PagePreview({ desk, page, marks }: { desk: PageDesk; page: Page; marks: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (canvas.current)
      // A small picture that cannot be drawn stays empty; it is counted and kept all the same.
      void drawThumbnail(canvas.current, page, desk, WIDTH * window.devicePixelRatio).catch(() => undefined);
  }, [desk, page]);
  const number = desk.pages.get().findIndex(({ id }) => id === page.id) + 1;
  return (
    <figure className="w-39 rounded-xl border-2 border-paper-line bg-white p-0.5">
      <canvas
        ref={canvas}
        className="h-24 w-full object-contain"
        role="img"
        aria-label={t('sittings.pageWithWhatWasWritten', { number })}
      />
      <figcaption className="px-1 text-sm">
        {t('common.page', { number })} · {marks}
      </figcaption>
    </figure>
  );
}
