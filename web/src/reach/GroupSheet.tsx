import { Popover } from 'radix-ui';
import { Suspense, useState } from 'react';
import type { ReactNode } from 'react';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import { keepNewFocus } from '../ui/focus';
import type { PageDesk } from '../room/pageDesk';
import { SHEET } from './sheet';
import { toolsIn } from '../tools/tools';
import { WORK } from '../tools/work';
import type { OpensTo } from './reachState';
import { GROUP_NAMES } from './groupNames';
import { t } from '../words';

interface GroupSheetProps {
  name: 'Point' | 'Focus' | 'Measure';
  icon: ReactNode;
  desk: PageDesk;
  side: OpensTo;
  children: ReactNode;
}

/** A group of tools that opens beside the others; it closes as soon as something of it is taken. */
export function GroupSheet({ name, icon, desk, side, children }: GroupSheetProps) {
  const [open, setOpen] = useState(false);
  const { tool } = useStore(desk.penCase);
  useStore(desk.room.rules);
  const mode = useStore(desk.room.mode);
  const isInHand = mode === 'write' && toolsIn(name).includes(tool) && desk.room.mayTake(tool);
  const may = { Point: desk.room.mayPoint, Focus: desk.isTeacher && desk.mayWrite, Measure: desk.mayMeasure }[
    name
  ];
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <IconButton
          label={GROUP_NAMES[name]}
          caption={GROUP_NAMES[name]}
          icon={isInHand ? WORK[tool].icon : icon}
          active={isInHand}
          disabled={!may}
          className="!min-w-0 !px-0 text-[0.7rem] tracking-tight"
          tooltipSide={side}
        />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label={GROUP_NAMES[name]}
          side={side}
          sideOffset={14}
          collisionPadding={8}
          onCloseAutoFocus={keepNewFocus}
          onClick={(event) => {
            if ((event.target as HTMLElement).closest('[data-closes]')) setOpen(false);
          }}
          className={SHEET}
        >
          <Suspense fallback={<p>{t('common.opening')}</p>}>{children}</Suspense>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
