import type { Mark, Point } from '@doodla/core';
import { cornerChanges, movedCorner, pathThrough, pointsOf, withCorners } from '@doodla/core';
import { nanoid } from 'nanoid';
import type { PointerEvent } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { takeArrow } from '../ui/arrowKeys';
import { useDrag } from '../ui/useDrag';
import { cornerLetter } from './cornerLetter';
import { KEY_STEP } from './frameHandles';
import type { MarkGround } from './markGround';
import type { Stage } from '../stage/stage';
import { t } from '../words';

interface CornerHandlesProps {
  mark: Mark;
  desk: PageDesk;
  ground: MarkGround;
  stage: Stage;
  /** Whether corners show their letters. */
  lettered: boolean;
}

/** The corners of a line or shape, to be moved, added (dots between) and taken away (double click). */
export function CornerHandles({ mark, desk, ground, stage, lettered }: CornerHandlesProps) {
  const path = withCorners(mark, nanoid);
  if (!path) return null;
  const points = pointsOf(path.points);
  const middle: Point = [mean(points.map(([x]) => x)), mean(points.map(([, y]) => y))];
  const mayAdd = path.course === 'straight';
  const put = (corners: readonly Point[]) => {
    const changed = pathThrough(path, corners);
    if (desk.target.perform(cornerChanges(mark, changed))) desk.selection.select([changed.id]);
  };
  const show = (corners: readonly Point[] | undefined) => {
    stage.showPreview(
      corners && { marks: [{ ...path, points: corners.flat() }], hidden: new Set([mark.id]) },
    );
  };
  const moved = (i: number, to: Point) => movedCorner(points, i, to);
  const inserted = (i: number, at: Point) => [...points.slice(0, i + 1), at, ...points.slice(i + 1)];
  const gaps = mayAdd ? (path.closed ? points.length : points.length - 1) : 0;
  return (
    <>
      {points.map((point, i) => (
        <Dot
          key={`corner ${i}`}
          label={t('selection.corner', { number: i + 1 })}
          letter={lettered ? { name: cornerLetter(i), away: awayFrom(middle, point) } : undefined}
          at={point}
          ground={ground}
          onDrag={(to) => show(moved(i, to))}
          onDrop={(to) => put(moved(i, to))}
          onEnd={() => show(undefined)}
          onRemove={() => {
            if (mayAdd && points.length > (path.closed ? 3 : 2)) put(points.filter((_, k) => k !== i));
          }}
        />
      ))}
      {Array.from({ length: gaps }, (_, i) => {
        const [a, b] = [points[i]!, points[(i + 1) % points.length]!];
        return (
          <Dot
            key={`gap ${i}`}
            label={t('selection.addACornerAfter', { number: i + 1 })}
            small
            at={[(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]}
            ground={ground}
            onDrag={(to) => show(inserted(i, to))}
            onDrop={(to) => put(inserted(i, to))}
            onEnd={() => show(undefined)}
          />
        );
      })}
    </>
  );
}

/** How far a corner's letter lies outside of it, CSS pixels. */
const LETTER_OFF = 18;

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

/** The direction from the middle to a corner. */
function awayFrom(middle: Point, corner: Point): Point {
  const [dx, dy] = [corner[0] - middle[0], corner[1] - middle[1]];
  const length = Math.hypot(dx, dy) || 1;
  return [dx / length, dy / length];
}

interface DotProps {
  label: string;
  at: Point;
  /** What the corner is called, and which way its name lies. */
  letter?: { name: string; away: Point } | undefined;
  small?: boolean;
  ground: MarkGround;
  onDrag(to: [number, number]): void;
  onDrop(to: [number, number]): void;
  /** What `onDrag` has shown is over; told before a drop as well. */
  onEnd(): void;
  onRemove?(): void;
}

function Dot({ label, letter, at, small, ground, onDrag, onDrop, onEnd, onRemove }: DotProps) {
  const { scale, x, y } = ground.view;
  const pageAt = (event: PointerEvent): [number, number] => {
    const box = ground.host.getBoundingClientRect();
    const place = ground.toPage(event.clientX - box.left, event.clientY - box.top);
    return [place.x, place.y];
  };
  const drag = useDrag({
    begin: (event) => {
      event.stopPropagation();
      return { moved: false };
    },
    move: (event, grip) => {
      grip.moved = true;
      onDrag(pageAt(event));
    },
    end: (event, { moved }, dropped) => {
      if (!moved) return;
      onEnd();
      if (dropped) onDrop(pageAt(event));
    },
  });
  return (
    <button
      type="button"
      aria-label={label}
      className="pointer-events-auto absolute -mt-3 -ml-3 grid size-6 cursor-move touch-none place-items-center"
      style={{ left: x + at[0] * scale, top: y + at[1] * scale }}
      {...drag}
      onDoubleClick={onRemove}
      onKeyDown={(event) => {
        const arrow = takeArrow(event);
        if (arrow) onDrop([at[0] + arrow[0] * KEY_STEP, at[1] + arrow[1] * KEY_STEP]);
        if (event.key !== 'Delete' && event.key !== 'Backspace') return;
        event.stopPropagation();
        onRemove?.();
      }}
    >
      <span
        className={`rounded-full border-2 border-chalk-deep bg-paper ${small ? 'size-2 opacity-70' : 'size-3.5'}`}
      />
      {letter !== undefined && (
        <span
          aria-hidden
          className="absolute -translate-1/2 rounded bg-ink px-1 text-xs font-bold text-paper"
          style={{ left: 12 + letter.away[0] * LETTER_OFF, top: 12 + letter.away[1] * LETTER_OFF }}
        >
          {letter.name}
        </span>
      )}
    </button>
  );
}
