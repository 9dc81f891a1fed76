import type { Rect } from '@doodla/core';
import { unionRect } from '@doodla/core';
import { useEffect, useRef } from 'react';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { drawThumbnail } from '../room/thumbnail';
import { takeArrow } from '../ui/arrowKeys';
import { useDrag } from '../ui/useDrag';
import { t } from '../words';

const WIDTH = 176;
const MAX_HEIGHT = 132;
/** Marks come and go quickly; the map follows a little later. */
const REDRAW_MS = 250;
/** Part of the window that an arrow key moves by. */
const KEY_STEP = 0.25;

interface PageMapProps {
  desk: PageDesk;
  stage: Stage;
  side: 'left' | 'right';
}

/** A small map of a boundless page: all that is on it, and which part is in sight. */
export default function PageMap({ desk, stage, side }: PageMapProps) {
  useStore(stage.view);
  const changed = useStore(desk.marksChanged);
  const canvas = useRef<HTMLCanvasElement>(null);
  const page = desk.page!;
  const extent = desk.extentOf(page);
  const { visible } = stage;
  const shown = unionRect(extent, visible);
  const scale = Math.min(WIDTH / shown.width, MAX_HEIGHT / shown.height);

  useEffect(() => {
    const timer = setTimeout(() => {
      const width = extent.width * scale * window.devicePixelRatio;
      if (canvas.current && width >= 1) void drawThumbnail(canvas.current, page, desk, width);
    }, REDRAW_MS);
    return () => clearTimeout(timer);
  }, [changed, page, desk, extent.width, scale]);

  const go = (event: React.PointerEvent<HTMLElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const inside = { x: (event.clientX - box.left) / scale, y: (event.clientY - box.top) / scale };
    stage.centreOn(shown.x + inside.x, shown.y + inside.y);
  };
  const drag = useDrag({ begin: go, move: go });
  const step = (event: React.KeyboardEvent) => {
    const direction = takeArrow(event);
    if (!direction) return;
    const { clientWidth, clientHeight } = stage.host;
    // Looking to the right moves the page to the left.
    stage.pan(-direction[0] * clientWidth * KEY_STEP, -direction[1] * clientHeight * KEY_STEP);
  };
  return (
    <div
      role="application"
      data-bar="map"
      tabIndex={0}
      aria-label={t('pages.mapOfThePageThe')}
      {...drag}
      onKeyDown={step}
      className={classes(
        'absolute bottom-18 compact:bottom-26 z-20 cursor-move touch-none overflow-hidden rounded-xl border-2 border-board-line bg-board-light shadow-xl outline-offset-2',
        side === 'left' ? 'left-2' : 'right-2',
      )}
      style={{ width: shown.width * scale + 4, height: shown.height * scale + 4 }}
    >
      <canvas ref={canvas} className="absolute rounded-sm" style={placeIn(shown, extent, scale)} />
      <span
        data-testid="in-sight"
        className="absolute rounded-sm border-2 border-chalk-deep bg-chalk/25"
        style={placeIn(shown, visible, scale)}
      />
    </div>
  );
}

function placeIn(whole: Rect, part: Rect, scale: number) {
  return {
    left: (part.x - whole.x) * scale,
    top: (part.y - whole.y) * scale,
    width: part.width * scale,
    height: part.height * scale,
  };
}
