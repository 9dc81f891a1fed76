import type { ClassState, Way } from '@doodla/core';
import { SquareStack } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { lazy, Suspense, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import { t } from '../words';

const WallDialog = lazy(() => import('./WallDialog'));
const TablesDialog = lazy(() => import('./TablesDialog'));

/** How a page is handed to the class. */
type Handing = 'look' | 'write' | Exclude<Way, 'class'>;

const NAMES = {
  look: 'roster.allLook',
  write: 'roster.allWrite',
  own: 'roster.ownCopies',
  tables: 'roster.tables',
  fields: 'roster.fields',
} as const satisfies Record<Handing, string>;

interface WayMenuProps {
  desk: PageDesk;
  state: ClassState | undefined;
}

/** Hands the shown page to the class in one of four ways, and shows all its copies. */
export function WayMenu({ desk, state }: WayMenuProps) {
  const page = useStore(desk.pageId);
  const [opened, setOpened] = useState<'wall' | 'tables'>();
  const close = () => setOpened(undefined);
  if (!state || page === undefined) return null;
  const way = state.ways[page];
  const handing: Handing = way ?? (state.pensUp ? 'write' : 'look');
  const hand = (to: Handing) => {
    const classroom = desk.room.classroom!;
    desk.room.spaces.opened.set(undefined);
    if (state.copy) classroom.showCopy(null);
    if (to === 'look' || to === 'write') return classroom.setWay(page, 'class', to === 'write');
    classroom.setWay(page, to, true);
    if (to !== 'own' && state.tables.length === 0) setOpened('tables');
  };
  return (
    <>
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger asChild>
          <Button
            look="onBoard"
            icon={<SquareStack aria-hidden size={18} />}
            aria-label={t('roster.wayNow', { way: t(NAMES[handing]) })}
            title={t('roster.wayNow', { way: t(NAMES[handing]) })}
          >
            {way && t(NAMES[way])}
          </Button>
        </DropdownMenu.Trigger>
        <MenuContent align="end">
          <DropdownMenu.RadioGroup value={handing} onValueChange={(to) => hand(to as Handing)}>
            {(Object.keys(NAMES) as Handing[]).map((one) => (
              <DropdownMenu.RadioItem key={one} value={one} className={MENU_ITEM}>
                <span aria-hidden className="w-4">
                  <DropdownMenu.ItemIndicator>✓</DropdownMenu.ItemIndicator>
                </span>
                {t(NAMES[one])}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
          <DropdownMenu.Separator className="my-1 border-t border-paper-line" />
          {([2, 4] as const).map((count) => (
            <DropdownMenu.Item key={count} className={MENU_ITEM} onSelect={() => desk.room.seats.set(count)}>
              {t(count === 2 ? 'roster.twoAtScreen' : 'roster.fourAtScreen')}
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setOpened('tables')}>
            {t('roster.makeTables')}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} disabled={!way} onSelect={() => setOpened('wall')}>
            {t('roster.seeAllCopies')}
          </DropdownMenu.Item>
        </MenuContent>
      </DropdownMenu.Root>
      <Suspense>
        {opened === 'wall' && <WallDialog desk={desk} page={page} onClose={close} />}
        {opened === 'tables' && <TablesDialog room={desk.room} onClose={close} />}
      </Suspense>
    </>
  );
}
