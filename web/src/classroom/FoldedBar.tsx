import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from '../ui/Button';

interface FoldedBarProps {
  label: string;
  children: ReactNode;
}

/** The bar of a lesson or class behind one button, where a window has no room for it. */
export function FoldedBar({ label, children }: FoldedBarProps) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button
          look="onBoard"
          data-bar="class"
          icon={<ChevronDown aria-hidden size={18} />}
          className="shrink-0 !rounded-2xl !bg-board !px-3 shadow-xl"
        >
          {label}
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label={label}
          align="end"
          sideOffset={6}
          collisionPadding={8}
          className="z-40 grid max-h-[min(80dvh,var(--radix-popover-content-available-height))] w-[min(100vw-1rem,22rem)] gap-1.5 overflow-auto rounded-2xl bg-board p-2 text-paper shadow-xl [&_button]:w-full"
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
