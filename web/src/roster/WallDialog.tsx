import type { Page, Space } from '@doodla/core';
import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import type { Copy } from '../room/copies';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { NameTag } from '../ui/NameTag';
import { t } from '../words';
import { BesideCopies } from './BesideCopies';
import { copyName, progressOf } from './copyNames';
import { Miniature, useCopies, useGround } from './Miniature';

/** Width of a miniature, device pixels. */
const WIDTH = 360;
/** Copies that there is room for side by side. */
const MOST_BESIDE = 4;

interface WallDialogProps {
  desk: PageDesk;
  page: string;
  onClose(): void;
}

/** All copies of a page as miniatures that keep up with what is written. */
export default function WallDialog({ desk, page: id, onClose }: WallDialogProps) {
  const page = desk.pages.get().find((one) => one.id === id);
  const { copies, common } = useCopies(desk, id);
  const ground = useGround(desk, page, common, WIDTH);
  const [chosen, setChosen] = useState<ReadonlySet<Space>>(new Set());
  const [beside, setBeside] = useState(false);
  const { room } = desk;
  const open = (copy: Copy) => {
    room.spaces.opened.set({ page: id, space: copy.space });
    onClose();
  };
  const show = (copy: Copy, named: boolean) => {
    room.spaces.opened.set(undefined);
    room.classroom!.showCopy({ page: id, space: copy.space, named });
    onClose();
  };
  const compared = copies.filter(({ space }) => chosen.has(space));
  const choose = (space: Space, on: boolean) =>
    setChosen((before) => new Set([...before].filter((one) => one !== space).concat(on ? space : [])));
  const begun = copies.filter(({ marks }) => marks.length > 0);
  const keep = () => {
    desk.pageActions.keepCopies(
      id,
      begun.map((copy) => ({ title: copyName(copy), marks: copy.marks })),
    );
    desk.room.tellNotice(t('roster.copiesAreKept', { count: begun.length }));
    onClose();
  };
  return (
    <Dialog.Root open onOpenChange={onClose}>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-40 flex flex-col bg-board p-3 text-paper"
        >
          <div className="mb-2 flex items-center justify-between gap-3">
            <Dialog.Title className="grow text-xl font-bold">{t('roster.allCopies')}</Dialog.Title>
            <Button
              look="onBoard"
              disabled={!beside && (compared.length < 2 || compared.length > MOST_BESIDE)}
              onClick={() => setBeside(!beside)}
            >
              {beside ? t('roster.backToAllCopies') : t('roster.sideBySide', { count: compared.length })}
            </Button>
            <Button look="onBoard" disabled={begun.length === 0} onClick={keep}>
              {t('roster.keepAsPages', { count: begun.length })}
            </Button>
            <Dialog.Close
              aria-label={t('common.close')}
              className="grid size-11 place-items-center rounded-xl hover:bg-board-hover"
            >
              <X aria-hidden />
            </Dialog.Close>
          </div>
          {page && beside && <BesideCopies desk={desk} page={page} copies={compared} common={common} />}
          <ul
            hidden={beside}
            className="grid grow auto-rows-max grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-3 overflow-auto"
          >
            {page &&
              copies.map((copy) => (
                <CopyCard
                  key={copy.space}
                  desk={desk}
                  page={page}
                  copy={copy}
                  ground={ground}
                  chosen={chosen.has(copy.space)}
                  onChoose={(on) => choose(copy.space, on)}
                  onOpen={() => open(copy)}
                  onShow={(named) => show(copy, named)}
                />
              ))}
          </ul>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

interface CopyCardProps {
  desk: PageDesk;
  page: Page;
  copy: Copy;
  ground: HTMLCanvasElement | undefined;
  /** Whether it is one of those that are compared. */
  chosen: boolean;
  onChoose(chosen: boolean): void;
  onOpen(): void;
  onShow(named: boolean): void;
}

function CopyCard({ desk, page, copy, ground, chosen, onChoose, onOpen, onShow }: CopyCardProps) {
  const name = copyName(copy);
  return (
    <li className="flex flex-col gap-1 rounded-2xl bg-board-light p-2">
      <button
        type="button"
        aria-label={t('roster.openCopyOf', { name })}
        onClick={onOpen}
        className="rounded-lg"
      >
        <Miniature desk={desk} page={page} copy={copy} ground={ground} />
      </button>
      <div className="flex items-center gap-2">
        {copy.table === undefined && copy.people[0] && <NameTag {...copy.people[0]} />}
        <span className="min-w-0 grow">
          <span className="block truncate font-bold">{name}</span>
          <span className="block text-sm">{progressOf(copy, desk)}</span>
        </span>
        <input
          type="checkbox"
          aria-label={t('roster.chooseCopy', { name })}
          title={t('roster.chooseCopy', { name })}
          checked={chosen}
          onChange={(event) => onChoose(event.target.checked)}
          className="size-6 shrink-0"
        />
      </div>
      <div className="flex gap-1 text-sm">
        <Button look="onBoard" className="grow !px-1 !text-sm" onClick={() => onShow(true)}>
          {t('roster.showToAll')}
        </Button>
        <Button look="onBoard" className="grow !px-1 !text-sm" onClick={() => onShow(false)}>
          {t('roster.showWithoutName')}
        </Button>
      </div>
    </li>
  );
}
