import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { useRef } from 'react';
import { focusNow, giveFocusBack } from './focus';
import { t } from '../words';

interface ModalProps {
  title: string;
  description?: string;
  open: boolean;
  onOpenChange(open: boolean): void;
  /** For what has to be seen large. */
  wide?: boolean;
  children: ReactNode;
}

/** A sheet of paper over everything else. */
export function Modal({ title, description, open, onOpenChange, wide = false, children }: ModalProps) {
  const before = useRef<HTMLElement>(undefined);
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-board/70" />
        <Dialog.Content
          onOpenAutoFocus={() => {
            before.current = focusNow();
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            giveFocusBack(before.current);
          }}
          className={`fixed top-1/2 left-1/2 z-50 max-h-[92dvh] ${wide ? 'w-[min(92vw,56rem)]' : 'w-[min(92vw,34rem)]'} -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-2xl bg-paper p-6 shadow-2xl`}
          {...(!description && { 'aria-describedby': undefined })}
        >
          <div className="mb-4 flex items-start justify-between gap-4">
            <Dialog.Title className="text-2xl font-bold">{title}</Dialog.Title>
            <Dialog.Close
              aria-label={t('common.close')}
              className="grid size-11 shrink-0 place-items-center rounded-xl hover:bg-paper-dim"
            >
              <X aria-hidden />
            </Dialog.Close>
          </div>
          {description && (
            <Dialog.Description className="mb-4 text-ink-soft">{description}</Dialog.Description>
          )}
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
