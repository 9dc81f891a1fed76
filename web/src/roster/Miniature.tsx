import type { Mark, Page } from '@doodla/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { drawMark } from '../canvas/markPainter';
import type { Copy } from '../room/copies';
import { Copies } from '../room/copies';
import type { PageDesk } from '../room/pageDesk';
import { drawThumbnail } from '../room/thumbnail';
import { answeredOn, isAnswered, seenOn } from './answeredCopies';

/** How often some of the copies are looked at anew, milliseconds, and in how many turns all of them are. */
const LOOK_EVERY_MS = 50;
const TURNS = 6;
const NONE: readonly Mark[] = [];

export interface Seen {
  copies: readonly Copy[];
  common: readonly Mark[];
}

/** The copies of a page and what all of them have, as they are now, looked at a few times a second. */
export function useCopies({ room }: PageDesk, page: string): Seen {
  const [seen, setSeen] = useState<Seen>({ copies: [], common: NONE });
  useEffect(() => {
    const watched = new Copies(room);
    void room.target.need(page);
    let turn = 0;
    const look = () => {
      turn = (turn + 1) % TURNS;
      const [now, common] = [watched.of(page), watched.common(page)];
      setSeen((before) => inTurn(before, { copies: now, common }, turn));
    };
    setSeen({ copies: watched.of(page), common: watched.common(page) });
    const timer = setInterval(look, LOOK_EVERY_MS);
    return () => {
      clearInterval(timer);
      watched.close();
    };
  }, [room, page]);
  return seen;
}

/** Takes over those copies whose turn it is, so that not all are drawn in one frame. */
function inTurn(before: Seen, now: Seen, turn: number): Seen {
  const isOther = before.copies.length !== now.copies.length || before.common !== now.common;
  const copies = now.copies.map((copy, i) => (i % TURNS === turn || isOther ? copy : before.copies[i]!));
  if (!isOther && copies.every((copy, i) => copy === before.copies[i])) return before;
  return { copies, common: now.common };
}

/** What the copies of a page have in common. */
export interface Ground {
  picture: HTMLCanvasElement;
  /** Marks of all that are answered on some copy, and so not in the picture. */
  things: readonly Mark[];
}

/** The page as everybody has it, drawn anew where that changes; `width` in device pixels. */
export function useGround(
  desk: PageDesk,
  page: Page | undefined,
  { copies, common }: Seen,
  width: number,
): Ground | undefined {
  const [ground, setGround] = useState<Ground>();
  const answered = [...answeredOn(copies)].sort().join();
  useEffect(() => {
    if (!page) return;
    const ids = new Set(answered.split(','));
    const picture = document.createElement('canvas');
    const marks = desk.layers.flatMap((layer) => layer.on(page.id).all());
    const things = marks.filter((mark) => mark.space === 'class' && isAnswered(mark, ids));
    const isInIt = (mark: Mark) => mark.space === 'class' && !isAnswered(mark, ids);
    drawThumbnail(picture, page, desk, width, isInIt).then(
      () => setGround({ picture, things }),
      (error: Error) => desk.tellProblem(error.message),
    );
  }, [desk, page, common, answered, width]);
  return ground;
}

interface MiniatureProps {
  desk: PageDesk;
  page: Page;
  copy: Copy;
  ground: Ground | undefined;
}

/** What a canvas shows. */
interface Drawn {
  ground: Ground;
  marks: readonly Mark[];
  extent: string;
}

/** Draws what has been added; all of it anew where something else has changed. */
export function Miniature({ desk, page, copy, ground }: MiniatureProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawn = useRef<Drawn>(undefined);
  const marks = useMemo(() => seenOn(copy, ground?.things ?? NONE), [copy, ground]);
  const { x, y, width, height } = desk.extentOf(page);
  useEffect(() => {
    const ctx = canvas.current?.getContext('2d');
    if (!ctx || !ground) return;
    const now: Drawn = { ground, marks, extent: [x, y, width, height].join(' ') };
    const before = drawn.current;
    const more = before && isMore(before, now) ? before.marks.length : 0;
    drawn.current = now;
    const { picture } = ground;
    if (more === 0) {
      canvas.current!.width = picture.width;
      canvas.current!.height = picture.height;
      ctx.drawImage(picture, 0, 0);
      const scale = picture.width / width;
      ctx.setTransform(scale, 0, 0, scale, -x * scale, -y * scale);
    }
    for (const mark of marks.slice(more)) drawMark(ctx, mark, desk.pictures);
  }, [desk, ground, marks, x, y, width, height]);
  return (
    <canvas
      ref={canvas}
      className="w-full rounded-lg bg-paper"
      style={{ aspectRatio: `${width} / ${height}` }}
    />
  );
}

/** Whether something was added on top of what is drawn, and nothing else is different. */
function isMore(before: Drawn, now: Drawn): boolean {
  return (
    before.ground === now.ground &&
    before.extent === now.extent &&
    before.marks.every((mark, i) => mark === now.marks[i])
  );
}
