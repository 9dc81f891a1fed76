import type { Mark, Page } from '@doodla/core';
import { useEffect, useRef, useState } from 'react';
import { drawMark } from '../canvas/markPainter';
import type { Copy } from '../room/copies';
import { Copies } from '../room/copies';
import type { PageDesk } from '../room/pageDesk';
import { drawThumbnail } from '../room/thumbnail';

/** How often all copies are looked at anew, milliseconds. */
const LOOK_EVERY_MS = 300;
const NONE: readonly Mark[] = [];

/** The copies of a page and what all of them have, as they are now, looked at a few times a second. */
export function useCopies({ room }: PageDesk, page: string): { copies: Copy[]; common: readonly Mark[] } {
  const [seen, setSeen] = useState<{ copies: Copy[]; common: readonly Mark[] }>({ copies: [], common: NONE });
  useEffect(() => {
    const watched = new Copies(room);
    void room.target.need(page);
    const look = () => setSeen({ copies: watched.of(page), common: watched.common(page) });
    look();
    const timer = setInterval(look, LOOK_EVERY_MS);
    return () => {
      clearInterval(timer);
      watched.close();
    };
  }, [room, page]);
  return seen;
}

/** The page as everybody has it, drawn anew where that changes; `width` in device pixels. */
export function useGround(
  desk: PageDesk,
  page: Page | undefined,
  common: readonly Mark[],
  width: number,
): HTMLCanvasElement | undefined {
  const [ground, setGround] = useState<HTMLCanvasElement>();
  useEffect(() => {
    if (!page) return;
    const canvas = document.createElement('canvas');
    drawThumbnail(canvas, page, desk, width, ({ space }) => space === 'class').then(
      () => setGround(canvas),
      (error: Error) => desk.tellProblem(error.message),
    );
  }, [desk, page, common, width]);
  return ground;
}

interface MiniatureProps {
  desk: PageDesk;
  page: Page;
  copy: Copy;
  ground: HTMLCanvasElement | undefined;
}

/** Draws anew where something has changed. */
export function Miniature({ desk, page, copy, ground }: MiniatureProps) {
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
