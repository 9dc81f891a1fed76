import type { Page } from '@doodla/core';
import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { drawMark } from '../canvas/markPainter';
import type { Copy } from '../room/copies';
import { Copies } from '../room/copies';
import type { PageDesk } from '../room/pageDesk';
import { drawThumbnail } from '../room/thumbnail';
import { Button } from '../ui/Button';
import { NameTag } from '../ui/NameTag';
import { t } from '../words';

/** Width of a miniature, device pixels; how often all are looked at anew, milliseconds. */
const WIDTH = 360;
const LOOK_EVERY_MS = 300;
/** So long without a stroke somebody may be stuck, milliseconds. */
const STUCK_MS = 60_000;

interface WallDialogProps {
  desk: PageDesk;
  page: string;
  onClose(): void;
}

/** All copies of a page as miniatures that keep up with what is written. */
export default function WallDialog({ desk, page: id, onClose }: WallDialogProps) {
  const page = desk.pages.get().find((one) => one.id === id);
  const copies = useCopies(desk, id);
  const ground = useGround(desk, page);
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
  const begun = copies.filter(({ marks }) => marks.length > 0);
  const keep = () => {
    desk.pageActions.keepCopies(
      id,
      begun.map((copy) => ({ title: nameOf(copy), marks: copy.marks })),
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
          <ul className="grid grow auto-rows-max grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-3 overflow-auto">
            {page &&
              copies.map((copy) => (
                <CopyCard
                  key={copy.space}
                  desk={desk}
                  page={page}
                  copy={copy}
                  ground={ground}
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

/** The copies of a page as they are now, looked at a few times a second. */
function useCopies({ room }: PageDesk, page: string): Copy[] {
  const [copies, setCopies] = useState<Copy[]>([]);
  useEffect(() => {
    const watched = new Copies(room);
    void room.target.need(page);
    const look = () => setCopies(watched.of(page));
    look();
    const timer = setInterval(look, LOOK_EVERY_MS);
    return () => {
      clearInterval(timer);
      watched.close();
    };
  }, [room, page]);
  return copies;
}

/** The page as everybody has it, drawn once. */
function useGround(desk: PageDesk, page: Page | undefined): HTMLCanvasElement | undefined {
  const [ground, setGround] = useState<HTMLCanvasElement>();
  useEffect(() => {
    if (!page) return;
    const canvas = document.createElement('canvas');
    drawThumbnail(canvas, page, desk, WIDTH, ({ space }) => space === 'class').then(
      () => setGround(canvas),
      (error: Error) => desk.tellProblem(error.message),
    );
  }, [desk, page]);
  return ground;
}

interface CopyCardProps {
  desk: PageDesk;
  page: Page;
  copy: Copy;
  ground: HTMLCanvasElement | undefined;
  onOpen(): void;
  onShow(named: boolean): void;
}

function CopyCard({ desk, page, copy, ground, onOpen, onShow }: CopyCardProps) {
  const name = nameOf(copy);
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

/** Draws anew where something has changed. */
function Miniature({ desk, page, copy, ground }: Omit<CopyCardProps, 'onOpen' | 'onShow'>) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { marks } = copy;
  const extent = desk.extentOf(page);
  useEffect(() => {
    const ctx = canvas.current?.getContext('2d');
    if (!ctx || !ground) return;
    canvas.current!.width = ground.width;
    canvas.current!.height = ground.height;
    ctx.drawImage(ground, 0, 0);
    const scale = ground.width / extent.width;
    ctx.setTransform(scale, 0, 0, scale, -extent.x * scale, -extent.y * scale);
    for (const mark of marks) drawMark(ctx, mark, desk.pictures);
  }, [desk, ground, marks, extent.width, extent.x, extent.y]);
  return (
    <canvas
      ref={canvas}
      className="w-full rounded-lg bg-paper"
      style={{ aspectRatio: `${extent.width} / ${extent.height}` }}
    />
  );
}

function nameOf({ table, people }: Copy): string {
  if (table === undefined) return people[0]?.name ?? '';
  return t('roster.tableWith', { number: table, names: people.map(({ name }) => name).join(', ') });
}

/** Whether somebody has begun, and how long ago they last wrote. */
function progressOf({ writtenAt, marks }: Copy, { room }: PageDesk): string {
  if (writtenAt === undefined) return t('roster.notBegun');
  const since = Math.max(0, room.classroom!.now - writtenAt);
  if (since < STUCK_MS) return t('roster.marksOnIt', { count: marks.length });
  return t('roster.nothingFor', { count: Math.floor(since / STUCK_MS) });
}
