import type { Page } from '@doodla/core';
import { useEffect, useRef, useState } from 'react';
import { useStore } from '../live/store';
import { classes } from '../ui/classes';
import type { Workspace } from '../workspace/workspace';
import type { Stage } from './stage';
import { drawThumbnail } from './thumbnail';

const WIDTH = 128;

interface PageStripProps {
  workspace: Workspace;
  stage: Stage;
  side: 'left' | 'right';
}

/** All pages as small pictures, drawn when they come into sight and freed when they leave it. */
export function PageStrip({ workspace, stage, side }: PageStripProps) {
  const columns = useStore(stage.arrangement) === 'columns';
  const pages = useStore(workspace.pages);
  const current = useStore(workspace.pageId);
  return (
    <nav
      aria-label="Pages"
      className={classes(
        'absolute top-0 bottom-0 z-20 w-44 overflow-y-auto border-x-2 border-board-line bg-board p-3 pb-20 shadow-xl',
        columns
          ? side === 'left'
            ? 'left-48'
            : 'right-48'
          : side === 'left'
            ? 'left-0 pt-16'
            : 'right-0 pt-16',
      )}
    >
      <ol className="flex flex-col items-center gap-3">
        {pages.map((page, i) => (
          <PageThumb
            key={page.id}
            page={page}
            number={i + 1}
            current={page.id === current}
            workspace={workspace}
          />
        ))}
      </ol>
    </nav>
  );
}

interface PageThumbProps {
  page: Page;
  number: number;
  current: boolean;
  workspace: Workspace;
}

function PageThumb({ page, number, current, workspace }: PageThumbProps) {
  const button = useRef<HTMLButtonElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [near, setNear] = useState(false);
  const height = Math.min(220, (WIDTH * page.height) / page.width);

  useEffect(() => {
    const observer = new IntersectionObserver(([entry]) => setNear(entry!.isIntersecting), {
      rootMargin: '300px',
    });
    observer.observe(button.current!);
    return () => observer.disconnect();
  }, []);
  useEffect(() => {
    const target = canvas.current!;
    if (near)
      void drawThumbnail(target, page, workspace, WIDTH * window.devicePixelRatio).catch(() => undefined);
    return () => {
      target.width = 0;
    };
  }, [near, page, workspace]);
  useEffect(() => {
    if (current) button.current!.scrollIntoView({ block: 'nearest' });
  }, [current]);

  return (
    <li>
      <button
        ref={button}
        type="button"
        aria-current={current ? 'page' : undefined}
        aria-label={`Page ${number}`}
        onClick={() => workspace.turnTo(page.id)}
        className={classes(
          'block rounded-lg border-4 p-0.5',
          current ? 'border-chalk' : 'border-transparent hover:border-board-line',
        )}
      >
        <span className="block overflow-hidden rounded bg-white" style={{ width: WIDTH, height }}>
          <canvas ref={canvas} className="size-full object-contain" />
        </span>
        <span className="text-sm text-paper">{number}</span>
      </button>
    </li>
  );
}
