import { Ellipsis } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import type { PageBar } from './pageBarItems';
import { PAGE_BAR } from './pageBarItems';
import { t } from '../words';

/** What can be done with the page in sight, behind one button, each with its name. */
export function PageSheet({ bar }: { bar: PageBar }) {
  const [open, setOpen] = useState(false);
  const { scale } = useStore(bar.stage.view);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <IconButton label={t('pages.thePage')} icon={<Ellipsis aria-hidden />} tooltipSide="none" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label={t('pages.thePage')}
          side="top"
          sideOffset={8}
          collisionPadding={8}
          className="z-40 max-h-[min(70dvh,var(--radix-popover-content-available-height))] w-[min(100vw-1rem,22rem)] overflow-auto rounded-2xl bg-board p-2 text-paper shadow-xl"
        >
          <p className="px-1 pb-1 text-sm">
            {t('pages.sizeOfThePage2')} <output>{Math.round(scale * 100)} %</output>
          </p>
          <div className="grid grid-cols-3 gap-1">
            {PAGE_BAR.filter((item) => item.when?.(bar) ?? true).map((item) => (
              <IconButton
                key={item.label}
                label={item.label}
                caption={item.caption}
                {...(item.active && { active: item.active(bar) })}
                icon={item.icon}
                tooltipSide="none"
                className="min-h-14"
                onClick={() => {
                  item.run(bar);
                  if (item.group !== 'size') setOpen(false);
                }}
              />
            ))}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
