import type { Page } from '@doodla/core';
import { useEffect, useRef } from 'react';
import { drawThumbnail } from '../workspace/thumbnail';
import type { Workspace } from '../workspace/workspace';

const WIDTH = 150;

/** A small picture of a page with what is written on it. */
export function PagePreview({ workspace, page, marks }: { workspace: Workspace; page: Page; marks: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (canvas.current)
      void drawThumbnail(canvas.current, page, workspace, WIDTH * window.devicePixelRatio).catch(
        () => undefined,
      );
  }, [workspace, page]);
  const number = workspace.pages.get().findIndex(({ id }) => id === page.id) + 1;
  return (
    <figure className="w-39 rounded-xl border-2 border-paper-line bg-white p-0.5">
      <canvas
        ref={canvas}
        className="h-24 w-full object-contain"
        role="img"
        aria-label={`Page ${number} with what was written`}
      />
      <figcaption className="px-1 text-sm">
        Page {number} · {marks}
      </figcaption>
    </figure>
  );
}
