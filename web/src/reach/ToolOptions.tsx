import { Popover } from 'radix-ui';
import { lazy, Suspense } from 'react';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { keepNewFocus } from '../ui/focus';
import type { PageDesk } from '../room/pageDesk';
import { SHEET } from './sheet';
import { TOOLS } from '../tools/tools';
import { WORK } from '../tools/work';
import type { OpensTo } from './reachState';
import { t } from '../words';

const OptionsSheet = lazy(() => import('./OptionsSheet'));

interface ToolOptionsProps {
  desk: PageDesk;
  side: OpensTo;
}

/** What the tool in hand works with, opened beside the tools. */
export function ToolOptions({ desk, side }: ToolOptionsProps) {
  const { penCase } = desk;
  const { tool } = useStore(penCase);
  const { colour } = penCase;
  const { name } = TOOLS[tool];
  const { icon } = WORK[tool];
  return (
    <Popover.Root>
      <Popover.Trigger asChild disabled={!desk.mayWrite}>
        <button
          type="button"
          aria-label={t('reach.colourAndOptionsOfThe', { tool: name })}
          className={classes(
            'flex items-center rounded-xl text-sm text-paper hover:bg-board-hover disabled:opacity-40',
            side === 'top' ? 'min-h-11 min-w-11 justify-center' : 'min-h-12 gap-2 bg-board-light px-2',
          )}
        >
          <span
            className={classes(
              'grid size-8 place-items-center rounded-full border-2 border-paper',
              !colour && 'border-dashed',
            )}
            style={{ background: colour ?? 'transparent' }}
          >
            {!colour && icon}
          </span>
          {side !== 'top' && t('reach.options')}
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label={t('reach.optionsOfThe', { tool: name })}
          side={side}
          sideOffset={14}
          collisionPadding={8}
          onCloseAutoFocus={keepNewFocus}
          className={SHEET}
        >
          <Suspense fallback={<p>{t('common.opening')}</p>}>
            <OptionsSheet desk={desk} />
          </Suspense>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
