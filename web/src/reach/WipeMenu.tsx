import type { Mark } from '@doodla/core';
import { Trash2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { toast } from 'sonner';
import { NO_CLASS } from '@doodla/core/client';
import { useStore } from '../store/useStore';
import type { PageDesk } from '../room/pageDesk';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import type { OpensTo } from './reachState';
import { t } from '../words';

interface WipeMenuProps {
  desk: PageDesk;
  side: OpensTo;
}

/** Clears the page of one sort of marks; each is one step to undo. */
export function WipeMenu({ desk, side }: WipeMenuProps) {
  useStore(desk.room.mode);
  const state = useStore(desk.classroom?.state ?? NO_CLASS);
  const wipe = (what: string, matches: (mark: Mark) => boolean) => {
    desk.settle();
    const marks = (desk.targetMarks?.all() ?? []).filter((mark) => desk.mayTouch(mark) && matches(mark));
    if (marks.length === 0) return toast(t('reach.thereIsNothingOfThat'), { id: 'wipe' });
    desk.target.perform(marks.map((mark) => ({ do: 'remove', mark: mark.id })));
    toast(t('reach.wiped', { what }), {
      id: 'wipe',
      action: { label: t('common.undo'), onClick: () => desk.target.undo() },
    });
  };
  const me = desk.target.actor?.id;
  const written = new Set((desk.targetMarks?.all() ?? []).map(({ author }) => author));
  const people = desk.isTeacher ? (state?.people ?? []).filter(({ id }) => written.has(id)) : [];
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        disabled={!desk.mayWrite}
        className="flex min-h-12 flex-col items-center justify-center rounded-xl text-xs text-paper hover:bg-board-light disabled:opacity-40"
      >
        <Trash2 aria-hidden />
        <span className="mt-0.5">{t('reach.wipe')}</span>
      </DropdownMenu.Trigger>
      <MenuContent side={side} sideOffset={12}>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={() => wipe(t('reach.wipedInk'), isInk)}>
          {t('reach.inkOnly')}
        </DropdownMenu.Item>
        <DropdownMenu.Item
          className={MENU_ITEM}
          onSelect={() => wipe(t('reach.wipedPlaced'), (mark) => !isInk(mark))}
        >
          {t('reach.typedAndPlacedThingsOnly')}
        </DropdownMenu.Item>
        <DropdownMenu.Item
          className={MENU_ITEM}
          onSelect={() => wipe(t('reach.wipedMine'), (mark) => mark.author === me)}
        >
          {t('reach.onlyWhatIsMine')}
        </DropdownMenu.Item>
        {people.length > 1 && (
          <DropdownMenu.Item
            className={MENU_ITEM}
            onSelect={() =>
              wipe(t('reach.wipedStudents'), (mark) => people.some(({ id }) => id === mark.author))
            }
          >
            {t('reach.allThatStudentsMade')}
          </DropdownMenu.Item>
        )}
        {people.map(({ id, name, colour }) => (
          <DropdownMenu.Item
            key={id}
            className={MENU_ITEM}
            onSelect={() => wipe(t('reach.whatMade', { name }), (mark) => mark.author === id)}
          >
            <span className="size-4 rounded-full" style={{ background: colour }} />
            {t('reach.onlyWhatMade', { name })}
          </DropdownMenu.Item>
        ))}
        {desk.isTeacher && (
          <DropdownMenu.Item
            className={`${MENU_ITEM} font-bold text-alarm`}
            onSelect={() => wipe(t('reach.wipedEverything'), () => true)}
          >
            {t('reach.everythingOnThisPage')}
          </DropdownMenu.Item>
        )}
      </MenuContent>
    </DropdownMenu.Root>
  );
}

const isInk = (mark: Mark) => mark.kind === 'stroke' || mark.kind === 'fill';
