import type { Mark } from '@doodla/core';
import { X } from 'lucide-react';
import { lazy, Suspense } from 'react';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';

const MeasureSheet = lazy(() => import('./MeasureSheet'));

interface MeasurePanelProps {
  marks: readonly Mark[];
  desk: PageDesk;
  stage: Stage;
  /** The middle of what is selected in the window, CSS pixels. */
  middle: number;
  onClose(): void;
}

/** Angles, lengths and areas of what is selected, at the side of the window that is farther from it. */
export function MeasurePanel({ marks, desk, stage, middle, onClose }: MeasurePanelProps) {
  const { left, right } = stage.sides;
  const isLeft = middle > (left + stage.host.clientWidth - right) / 2;
  return (
    <section
      aria-label={t('measures.title')}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onClose();
        event.stopPropagation();
      }}
      style={isLeft ? { left } : { right: Math.max(right, 8) }}
      className="pointer-events-auto absolute top-20 z-20 flex max-h-[calc(100%-10rem)] w-68 flex-col gap-2 overflow-auto rounded-2xl bg-board p-3 text-paper shadow-xl forced-colors:border-2"
    >
      <div className="-my-1 flex items-center justify-between">
        <h2 className="font-bold">{t('measures.title')}</h2>
        <IconButton label={t('common.close')} icon={<X aria-hidden size={20} />} onClick={onClose} />
      </div>
      <Suspense>
        <MeasureSheet marks={marks} desk={desk} />
      </Suspense>
    </section>
  );
}
