import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { t } from '../words';

/** The upper edge: what this is, what is chosen, and the way out. */
export function ReplayHead({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="flex items-start justify-between gap-3 compact:gap-1">
      <div className="flex min-h-11 min-w-0 grow flex-wrap items-center gap-2">
        <Dialog.Title className="me-2 truncate text-xl font-bold compact:sr-only">{title}</Dialog.Title>
        {children}
      </div>
      <Dialog.Close
        aria-label={t('common.close')}
        className="grid size-11 shrink-0 place-items-center rounded-xl hover:bg-board-hover"
      >
        <X aria-hidden />
      </Dialog.Close>
    </div>
  );
}
