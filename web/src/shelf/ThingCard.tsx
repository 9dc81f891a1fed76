import type { ShelfThing } from '@doodla/core';
import { Ellipsis, FileStack, Shapes, Users } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { toast } from 'sonner';
import { changeThing, removeThing, restoreThing, thingPicture } from '../api/shelf';
import type { PageDesk } from '../room/pageDesk';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import { t } from '../words';
import { DragCard } from './DragCard';
import { putFromShelf } from './putFromShelf';
import { shelfChanged } from './shelfState';
import { ThingDialog } from './ThingDialog';

interface ThingCardProps {
  desk: PageDesk;
  thing: ShelfThing;
  /** Folders that it could be put into. */
  folders: readonly string[];
}

/** A thing as it looks, with what can be done with it. */
export function ThingCard({ desk, thing, folders }: ThingCardProps) {
  const [naming, setNaming] = useState(false);
  const use = (at?: { x: number; y: number }) => void putFromShelf(desk, thing, at);
  const pages = thing.kind === 'pages' ? t('shelf.pages', { count: thing.count }) : undefined;
  return (
    <>
      <DragCard
        desk={desk}
        hint={t('shelf.putOnThePage', { title: thing.title })}
        picture={<ThingPicture thing={thing} />}
        onUse={use}
      >
        <span className="mt-1 me-9 line-clamp-2 text-sm font-bold break-words">{thing.title}</span>
        <span className="me-9 flex items-center gap-1 text-sm text-ink-soft empty:hidden">
          {thing.shared && thing.owner === null && <Users aria-hidden size={16} />}
          {[pages, thing.owner ?? (thing.shared ? t('shelf.shared') : undefined)].filter(Boolean).join(' · ')}
        </span>
      </DragCard>
      {thing.owner === null && <ThingMenu thing={thing} onName={() => setNaming(true)} />}
      {naming && <ThingDialog thing={thing} folders={folders} onClose={() => setNaming(false)} />}
    </>
  );
}

function ThingPicture({ thing: { id, kind, hasPicture } }: { thing: ShelfThing }) {
  const Icon = kind === 'pages' ? FileStack : Shapes;
  return (
    <span className="flex aspect-4/3 w-full items-center justify-center overflow-hidden rounded-lg bg-white p-1 shadow-sm forced-colors:border-2">
      {hasPicture ? (
        <img
          src={thingPicture(id)}
          alt=""
          loading="lazy"
          draggable={false}
          className="size-full min-h-0 object-contain"
        />
      ) : (
        <Icon aria-hidden size={40} className="text-ink-soft" />
      )}
    </span>
  );
}

function ThingMenu({ thing, onName }: { thing: ShelfThing; onName(): void }) {
  const attempt = (work: Promise<void>) =>
    work.then(
      () => {
        shelfChanged.tell();
        return true;
      },
      (error: Error) => {
        toast.error(error.message);
        return false;
      },
    );
  const remove = async () => {
    if (!(await attempt(removeThing(thing.id)))) return;
    toast(t('shelf.isOffTheShelf', { title: thing.title }), {
      duration: 15_000,
      action: { label: t('common.undo'), onClick: () => void attempt(restoreThing(thing.id)) },
    });
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={t('shelf.moreFor', { title: thing.title })}
        className="absolute end-0 bottom-0 grid size-11 place-items-center rounded-xl hover:bg-paper-dim"
      >
        <Ellipsis aria-hidden size={20} />
      </DropdownMenu.Trigger>
      <MenuContent align="end">
        <DropdownMenu.Item className={MENU_ITEM} onSelect={onName}>
          {t('shelf.nameAndFolder')}
        </DropdownMenu.Item>
        <DropdownMenu.Item
          className={MENU_ITEM}
          onSelect={() => void attempt(changeThing(thing.id, { shared: !thing.shared }))}
        >
          {t(thing.shared ? 'shelf.stopSharing' : 'shelf.share')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={`${MENU_ITEM} text-alarm`} onSelect={() => void remove()}>
          {t('shelf.takeOff')}
        </DropdownMenu.Item>
      </MenuContent>
    </DropdownMenu.Root>
  );
}
