import type { Transform } from '@doodla/core';
import { ANGLE_STEP, frameOf } from '@doodla/core';
import {
  ArrowDown,
  ArrowLeft,
  ArrowRight,
  ArrowUp,
  Move,
  RotateCcw,
  RotateCw,
  ZoomIn,
  ZoomOut,
} from 'lucide-react';
import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { IconButton } from '../ui/IconButton';
import { KEY_STEP } from './frameHandles';
import { t } from '../words';

/** How much larger or smaller one tap makes what is selected. */
const GROWTH = 1.1;

interface NudgeMenuProps {
  desk: PageDesk;
}

/** Moves, sizes and turns what is selected by taps, for those who cannot drag (WCAG 2.2, 2.5.7). */
export function NudgeMenu({ desk }: NudgeMenuProps) {
  const { selection } = desk;
  const middle = () => {
    const { x, y, width, height } = frameOf(selection.marks());
    return { x: x + width / 2, y: y + height / 2 };
  };
  const moved = (dx: number, dy: number): Transform => ({
    kind: 'move',
    dx: dx * KEY_STEP,
    dy: dy * KEY_STEP,
  });
  const sized = (f: number): Transform => ({ kind: 'resize', fx: f, fy: f, ...middle() });
  const turned = (degrees: number): Transform => ({ kind: 'turn', degrees, ...middle() });
  const tap = (label: string, icon: ReactNode, transform: () => Transform) => (
    <IconButton
      label={label}
      caption={label}
      icon={icon}
      tooltipSide="none"
      onClick={() => selection.apply(transform())}
    />
  );
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <IconButton label={t('selection.moveSizeAndTurnBy')} icon={<Move aria-hidden size={20} />} />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label={t('selection.moveSizeAndTurn')}
          sideOffset={8}
          collisionPadding={8}
          className="z-40 grid max-h-(--radix-popover-content-available-height) w-56 grid-cols-3 gap-1 overflow-auto rounded-2xl bg-board forced-colors:border-2 p-2 text-paper shadow-xl"
        >
          {tap(t('selection.turnLeft'), <RotateCcw aria-hidden />, () => turned(-ANGLE_STEP))}
          {tap(t('selection.up'), <ArrowUp aria-hidden />, () => moved(0, -1))}
          {tap(t('selection.turnRight'), <RotateCw aria-hidden />, () => turned(ANGLE_STEP))}
          {tap(t('common.left'), <ArrowLeft aria-hidden />, () => moved(-1, 0))}
          {tap(t('selection.down'), <ArrowDown aria-hidden />, () => moved(0, 1))}
          {tap(t('common.right'), <ArrowRight aria-hidden />, () => moved(1, 0))}
          {tap(t('common.smaller'), <ZoomOut aria-hidden />, () => sized(1 / GROWTH))}
          <span />
          {tap(t('common.larger'), <ZoomIn aria-hidden />, () => sized(GROWTH))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
