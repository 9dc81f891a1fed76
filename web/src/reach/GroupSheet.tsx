import { Popover } from 'radix-ui';
import { Suspense, useState } from 'react';
import type { ReactNode } from 'react';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import { FOCUS_TOOLS, POINT_TOOLS } from './tools';

interface GroupSheetProps {
  name: 'Point' | 'Focus';
  icon: ReactNode;
  desk: PageDesk;
  side: 'left' | 'right';
  children: ReactNode;
}

/** A group of tools that opens beside the others; it closes as soon as something of it is taken. */
export function GroupSheet({ name, icon, desk, side, children }: GroupSheetProps) {
  const [open, setOpen] = useState(false);
  const { tool } = useStore(desk.penCase);
  const mode = useStore(desk.room.mode);
  const tools = name === 'Point' ? POINT_TOOLS : FOCUS_TOOLS;
  const inHand = mode === 'write' ? tools.find(({ id }) => id === tool && desk.room.mayTake(id)) : undefined;
  const may = name === 'Point' ? desk.room.mayPoint : desk.isTeacher && desk.mayWrite;
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <IconButton
          label={name}
          caption={name}
          icon={inHand?.icon ?? icon}
          active={inHand !== undefined}
          disabled={!may}
          tooltipSide={side}
        />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side={side}
          sideOffset={14}
          collisionPadding={8}
          onClick={(event) => {
            if ((event.target as HTMLElement).closest('[data-closes]')) setOpen(false);
          }}
          className="z-30 max-h-[94dvh] w-66 overflow-auto rounded-2xl border-2 border-board-line bg-board p-3 text-paper shadow-xl"
        >
          <Suspense fallback={<p>Opening …</p>}>{children}</Suspense>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
