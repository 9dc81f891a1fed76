import type { MarkOf, Sides } from '@doodla/core';
import { cropBy, draggedSides, patchMark, turnedBack } from '@doodla/core';
import { useEffect } from 'react';
import type { PageDesk } from '../room/pageDesk';
import type { At } from './DragDot';
import { DragDot } from './DragDot';
import type { FrameHandle } from './frameHandles';
import { HANDLES, KEY_STEP } from './frameHandles';
import type { MarkGround } from './markGround';
import type { Stage } from '../stage/stage';
import { t } from '../words';

/** How much of what is cut off is still seen meanwhile. */
const GHOST = 0.3;
/** More than any side can be moved. */
const ALL = 10;

interface CropHandlesProps {
  picture: MarkOf<'picture'>;
  desk: PageDesk;
  ground: MarkGround;
  stage: Stage;
}

/** Handles on the sides and corners of a picture that cut it, while the rest of it shows through. */
export function CropHandles({ picture, desk, ground, stage }: CropHandlesProps) {
  useEffect(() => {
    showWith(stage, picture, {});
    return () => stage.showPreview(undefined);
  }, [stage, picture]);
  const moves = (handle: FrameHandle, start: At, now: At) =>
    draggedSides(picture, handle, turnedBack(picture, start, now));
  const crop = (by: Partial<Sides>) => desk.selection.patchOne(picture.id, cropBy(picture, by));
  return HANDLES.map((handle) => (
    <DragDot
      key={handle.cut}
      label={t(handle.cut)}
      cursor={handle.cursor}
      style={{ left: `${handle.x * 100}%`, top: `${handle.y * 100}%` }}
      ground={ground}
      onDrag={(start, now) => showWith(stage, picture, moves(handle, start, now))}
      onDrop={(start, now) => crop(moves(handle, start, now))}
      onEnd={() => showWith(stage, picture, {})}
      onArrow={(dx, dy) => crop(draggedSides(picture, handle, { x: dx * KEY_STEP, y: dy * KEY_STEP }))}
    />
  ));
}

/** Shows the whole picture faintly under what would be left of it. */
function showWith(stage: Stage, picture: MarkOf<'picture'>, moves: Partial<Sides>): void {
  const whole = patchMark(picture, {
    ...cropBy(picture, { left: -ALL, top: -ALL, right: -ALL, bottom: -ALL }),
    style: { opacity: picture.style.opacity * GHOST },
  });
  const left = patchMark(picture, cropBy(picture, moves));
  stage.showPreview({ marks: [whole, left], hidden: new Set([picture.id]) });
}
