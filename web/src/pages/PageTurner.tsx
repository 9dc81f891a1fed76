import { NO_CLASS, NO_SCENE } from '@doodla/core/client';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import { windowRoom } from '../ui/windowRoom';
import type { PageBar, PageBarItem } from './pageBarItems';
import { PAGE_BAR } from './pageBarItems';
import { PageSheet } from './PageSheet';
import { TurnButtons } from './TurnButtons';
import { t } from '../words';

export interface PageTurnerProps extends Omit<PageBar, 'fit'> {
  side: 'left' | 'right';
  /** Whether the strip of tools lies under it, on a hand-held screen. */
  overStrip: boolean;
}

/** Turning and enlarging, in the corner away from the tools; on a hand-held screen all but turning is in a sheet. */
export default function PageTurner({ side, overStrip, ...rest }: PageTurnerProps) {
  const { desk, stage } = rest;
  const bar: PageBar = { ...rest, fit: useStore(stage.fit) };
  const { compact } = useStore(windowRoom);
  // May change with either.
  useStore(desk.classroom?.scene ?? NO_SCENE);
  useStore(desk.classroom?.state ?? NO_CLASS);
  const turns = desk.room.mayTurn;
  return (
    <div
      data-bar="pages"
      className={classes(
        'absolute z-30 flex items-center gap-0.5 rounded-2xl bg-board forced-colors:border-2 p-1 text-paper shadow-xl compact:border-0 compact:p-0.5',
        overStrip ? 'bottom-13' : 'bottom-2 compact:bottom-0.5',
        side === 'left' ? 'left-2 compact:left-1' : 'right-2 compact:right-1',
      )}
    >
      {compact ? (
        <>
          {turns && <TurnButtons desk={desk} />}
          <PageSheet bar={bar} />
        </>
      ) : (
        <>
          <SizeButtons bar={bar} />
          {itemsOf('page', bar).map((item) => (
            <PageBarButton key={item.label} item={item} bar={bar} />
          ))}
          {turns && (
            <div className="flex items-center">
              {itemsOf('pages', bar).map((item) => (
                <PageBarButton key={item.label} item={item} bar={bar} />
              ))}
              <TurnButtons desk={desk} />
            </div>
          )}
        </>
      )}
    </div>
  );
}

const itemsOf = (group: PageBarItem['group'], bar: PageBar) =>
  PAGE_BAR.filter((item) => item.group === group && (item.when?.(bar) ?? true));

/** Smaller, how large the page is seen, larger, and what fits it. */
function SizeButtons({ bar }: { bar: PageBar }) {
  const { scale } = useStore(bar.stage.view);
  const [smaller, ...others] = itemsOf('size', bar);
  return (
    <div role="group" aria-label={t('common.size')} className="flex items-center">
      <PageBarButton item={smaller!} bar={bar} />
      <output aria-label={t('pages.sizeOfThePage')} className="w-14 text-center text-sm">
        {Math.round(scale * 100)} %
      </output>
      {others.map((item) => (
        <PageBarButton key={item.label} item={item} bar={bar} />
      ))}
    </div>
  );
}

function PageBarButton({ item, bar }: { item: PageBarItem; bar: PageBar }) {
  return (
    <IconButton
      label={item.label}
      {...(item.key && { shortcut: bar.desk.room.shortcuts.keyOf(item.key) })}
      {...(item.active && { active: item.active(bar) })}
      icon={item.icon}
      onClick={() => item.run(bar)}
    />
  );
}
