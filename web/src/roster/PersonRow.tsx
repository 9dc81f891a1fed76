import type { Person } from '@doodla/core';
import { MoreVertical, Pen, PenOff } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { toast } from 'sonner';
import { takeOutStudent } from '../api/lessons';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import { NameTag } from '../ui/NameTag';
import { t } from '../words';
import type { Presence } from './presence';
import { wipeOf } from './wipeOf';

const PRESENCE = {
  writing: 'roster.writingNow',
  here: 'roster.here',
  away: 'roster.away',
  offline: 'roster.offline',
} as const;

const BUTTON = 'grid size-11 shrink-0 place-items-center rounded-xl hover:bg-paper-dim';

interface PersonRowProps {
  desk: PageDesk;
  person: Person;
  presence: Presence;
  presents: boolean;
}

/** One student: who they are, what they are doing, their pen, and what else can be done. */
export function PersonRow({ desk, person, presence, presents }: PersonRowProps) {
  const { room } = desk;
  const { id, name } = person;
  const classroom = room.classroom!;
  const up = classroom.penUpOf(id);
  return (
    <li className="flex min-h-12 items-center gap-2">
      <NameTag {...person} />
      <span className="min-w-0 grow">
        <span className="block truncate">{name}</span>
        <span className="block text-sm text-ink-soft">{t(PRESENCE[presence])}</span>
      </span>
      <button
        type="button"
        aria-pressed={up}
        aria-label={t(up ? 'roster.penUpOf' : 'roster.penDownOf', { name })}
        title={t(up ? 'roster.penUpOf' : 'roster.penDownOf', { name })}
        onClick={() => classroom.setPensOf([id], !up)}
        className={BUTTON}
      >
        {up ? <Pen aria-hidden size={18} /> : <PenOff aria-hidden size={18} className="text-alarm" />}
      </button>
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger aria-label={t('roster.moreFor', { name })} className={BUTTON}>
          <MoreVertical aria-hidden size={18} />
        </DropdownMenu.Trigger>
        <MenuContent align="end">
          <PersonMenu desk={desk} person={person} presents={presents} />
        </MenuContent>
      </DropdownMenu.Root>
    </li>
  );
}

function PersonMenu({ desk, person: { id, name }, presents }: Omit<PersonRowProps, 'presence'>) {
  const { room } = desk;
  const classroom = room.classroom!;
  const { pointers } = useStore(classroom.scene);
  const { hidden, muted, scribes } = useStore(room.rules);
  const isHidden = hidden.includes(id);
  const tell = (done: Promise<unknown>) => void done.catch((error: Error) => room.tellProblem(error.message));
  const wipe = (page?: string) =>
    tell(
      wipeOf(room, id, page).then((count) =>
        toast(count > 0 ? t('roster.wipedOf', { name, count }) : t('roster.nothingOf', { name })),
      ),
    );
  const hide = () => classroom.setRules({ hidden: withOrWithout(hidden, id, !isHidden) });
  return (
    <>
      <DropdownMenu.CheckboxItem
        className={MENU_ITEM}
        checked={pointers.includes(id)}
        onCheckedChange={(on) => room.letPoint(id, on)}
      >
        <Ticked /> {t('roster.mayPoint')}
      </DropdownMenu.CheckboxItem>
      <DropdownMenu.CheckboxItem
        className={MENU_ITEM}
        checked={presents}
        onCheckedChange={(on) => room.sharing.allow(id, on)}
      >
        <Ticked /> {t('roster.mayShowTheirScreen')}
      </DropdownMenu.CheckboxItem>
      <DropdownMenu.CheckboxItem
        className={MENU_ITEM}
        checked={!muted.includes(id)}
        onCheckedChange={(on) => classroom.setRules({ muted: withOrWithout(muted, id, !on) })}
      >
        <Ticked /> {t('talk.writesInChat')}
      </DropdownMenu.CheckboxItem>
      <DropdownMenu.CheckboxItem
        className={MENU_ITEM}
        checked={scribes.includes(id)}
        onCheckedChange={(on) => classroom.setRules({ scribes: withOrWithout(scribes, id, on) })}
      >
        <Ticked /> {t('talk.mayWriteNotes')}
      </DropdownMenu.CheckboxItem>
      <DropdownMenu.Separator className="my-1 border-t border-paper-line" />
      <DropdownMenu.Item className={MENU_ITEM} onSelect={() => room.shown.of.set({ author: id })}>
        {t('roster.showOnlyOf', { name })}
      </DropdownMenu.Item>
      <DropdownMenu.Item className={MENU_ITEM} onSelect={hide}>
        {t(isHidden ? 'roster.showAgainOf' : 'roster.hideAllOf', { name })}
      </DropdownMenu.Item>
      <DropdownMenu.Item className={MENU_ITEM} onSelect={() => wipe(desk.pageId.get())}>
        {t('roster.wipeHereOf', { name })}
      </DropdownMenu.Item>
      <DropdownMenu.Item className={MENU_ITEM} onSelect={() => wipe()}>
        {t('roster.wipeAllOf', { name })}
      </DropdownMenu.Item>
      <DropdownMenu.Separator className="my-1 border-t border-paper-line" />
      <DropdownMenu.Item className={MENU_ITEM} onSelect={() => tell(takeOutStudent(room.sitting!, id))}>
        {t('roster.takeOutOf', { name })}
      </DropdownMenu.Item>
    </>
  );
}

function withOrWithout(list: readonly string[], id: string, isIn: boolean): string[] {
  const others = list.filter((other) => other !== id);
  return isIn ? [...others, id] : others;
}

/** The tick of an entry that is on; the room for it where it is off. */
function Ticked() {
  return (
    <span aria-hidden className="w-4">
      <DropdownMenu.ItemIndicator>✓</DropdownMenu.ItemIndicator>
    </span>
  );
}
