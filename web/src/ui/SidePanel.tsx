import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { Suspense } from 'react';
import { classes } from './classes';
import { IconButton } from './IconButton';
import { t } from '../words';

/** In a window that is no wider it lies below, CSS pixels. */
const NARROW = 640;

interface SidePanelProps {
  title: string;
  /** The window of the page: how wide it is, and how far bars reach into it from its sides; CSS pixels. */
  room: { width: number; left: number; right: number };
  /** The middle of what it belongs to in the window, CSS pixels. */
  middle: number;
  onClose(): void;
  children: ReactNode;
}

/** What belongs to something on the page, at the side of the window that is farther from it. */
export function SidePanel({ title, room, middle, onClose, children }: SidePanelProps) {
  const { width, left, right } = room;
  const isNarrow = width < NARROW;
  const isLeft = middle > (left + width - right) / 2;
  return (
    <section
      aria-label={title}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onClose();
        event.stopPropagation();
      }}
      style={isNarrow ? undefined : isLeft ? { left } : { right: Math.max(right, 8) }}
      className={classes(
        'pointer-events-auto absolute z-20 flex flex-col gap-2 overflow-auto rounded-2xl bg-board p-3 text-paper shadow-xl forced-colors:border-2',
        isNarrow ? 'inset-x-1 bottom-28 max-h-[36%]' : 'top-20 max-h-[calc(100%-10rem)] w-68',
      )}
    >
      <div className="-my-1 flex items-center justify-between">
        <h2 className="font-bold">{title}</h2>
        <IconButton label={t('common.close')} icon={<X aria-hidden size={20} />} onClick={onClose} />
      </div>
      <Suspense>{children}</Suspense>
    </section>
  );
}
