import type { Space } from '@doodla/core';
import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { t } from '../words';
import { pageOn } from './answeredCopies';
import { BesideCopies } from './BesideCopies';
import { CopyCard } from './CopyCard';
import { copyName, progressOf } from './copyNames';
import { useCopies, useGround } from './Miniature';

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
  const ground = useGround(desk, page, { copies, common }, WIDTH);
  const [chosen, setChosen] = useState<ReadonlySet<Space>>(new Set());
  const [beside, setBeside] = useState(false);
  const { room } = desk;
  const close = useRef(onClose);
  useEffect(() => {
    close.current = onClose;
  });
  const open = useCallback(
    (space: Space) => {
      room.spaces.opened.set({ page: id, space });
      close.current();
    },
    [room, id],
  );
  const show = useCallback(
    (space: Space, named: boolean) => {
      room.spaces.opened.set(undefined);
      room.classroom!.showCopy({ page: id, space, named });
      close.current();
    },
    [room, id],
  );
  const compared = copies.filter(({ space }) => chosen.has(space));
  const choose = useCallback(
    (space: Space, on: boolean) =>
      setChosen((before) => new Set([...before].filter((one) => one !== space).concat(on ? space : []))),
    [],
  );
  const begun = copies.filter(({ marks }) => marks.length > 0);
  const keep = () => {
    desk.pageActions.keepCopies(
      id,
      begun.map((copy) => ({ title: copyName(copy), marks: pageOn(desk, id, copy) })),
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
                  progress={progressOf(copy, desk)}
                  ground={ground}
                  chosen={chosen.has(copy.space)}
                  onChoose={choose}
                  onOpen={open}
                  onShow={show}
                />
              ))}
          </ul>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
