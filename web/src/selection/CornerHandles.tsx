import type { Change, Mark, MarkOf } from '@doodla/core';
import { boxMatrix, applyMatrix, pointsOf, shapeCorners } from '@doodla/core';
import { nanoid } from 'nanoid';
import { useRef } from 'react';
import type { PointerEvent } from 'react';
import type { PageDesk } from '../room/pageDesk';
import type { MarkGround } from './markGround';
import type { Stage } from '../stage/stage';

interface CornerHandlesProps {
  mark: Mark;
  desk: PageDesk;
  ground: MarkGround;
  stage: Stage;
}

/** The corners of a line or shape, to be moved, added (dots between) and taken away (double click). */
export function CornerHandles({ mark, desk, ground, stage }: CornerHandlesProps) {
  const path = asPath(mark);
  if (!path) return null;
  const points = pointsOf(path.points);
  const mayAdd = path.course === 'straight';
  const put = (corners: readonly (readonly [number, number])[]) => {
    const changed: MarkOf<'path'> = {
      ...path,
      points: corners.flat().map((value) => Math.round(value * 100) / 100),
      from: null,
      to: null,
    };
    if (desk.target.perform(changesFor(mark, changed))) desk.selection.select([changed.id]);
  };
  const show = (corners: readonly (readonly [number, number])[] | undefined) => {
    stage.showPreview(
      corners && { marks: [{ ...path, points: corners.flat() }], hidden: new Set([mark.id]) },
    );
  };
  const moved = (i: number, to: readonly [number, number]) =>
    points.map((point, k) => (k === i ? rightAngle(points, i, to) : point));
  const inserted = (i: number, at: readonly [number, number]) => [
    ...points.slice(0, i + 1),
    at,
    ...points.slice(i + 1),
  ];
  const gaps = mayAdd ? (path.closed ? points.length : points.length - 1) : 0;
  return (
    <>
      {points.map((point, i) => (
        <Dot
          key={`corner ${i}`}
          label={`Corner ${i + 1}`}
          at={point}
          ground={ground}
          onDrag={(to) => show(moved(i, to))}
          onDrop={(to) => (show(undefined), put(moved(i, to)))}
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
            label={`Add a corner after ${i + 1}`}
            small
            at={[(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]}
            ground={ground}
            onDrag={(to) => show(inserted(i, to))}
            onDrop={(to) => (show(undefined), put(inserted(i, to)))}
          />
        );
      })}
    </>
  );
}

/** Degrees within which a corner snaps to a right angle. */
const SNAP_DEGREES = 4;

/** A corner that is nearly at a right angle between its neighbours is put exactly there (Thales). */
function rightAngle(
  points: readonly (readonly [number, number])[],
  i: number,
  to: readonly [number, number],
): readonly [number, number] {
  if (points.length !== 3) return to;
  const [a, b] = [points[(i + 1) % 3]!, points[(i + 2) % 3]!];
  const [mx, my] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const radius = Math.hypot(a[0] - mx, a[1] - my);
  const distance = Math.hypot(to[0] - mx, to[1] - my);
  const angle = Math.atan2(a[1] - to[1], a[0] - to[0]) - Math.atan2(b[1] - to[1], b[0] - to[0]);
  const off = Math.abs(Math.abs(Math.cos(angle)));
  if (distance === 0 || off > Math.sin((SNAP_DEGREES * Math.PI) / 180)) return to;
  return [mx + ((to[0] - mx) * radius) / distance, my + ((to[1] - my) * radius) / distance];
}

/** The mark as a path; a shape with corners becomes a polygon. Undefined for what has no corners. */
function asPath(mark: Mark): MarkOf<'path'> | undefined {
  if (mark.kind === 'path') return mark;
  if (mark.kind !== 'shape') return undefined;
  const corners = shapeCorners(mark);
  if (!corners) return undefined;
  const matrix = boxMatrix(mark);
  const points = corners.flatMap((corner) => (matrix ? applyMatrix(matrix, ...corner) : corner));
  const { page, author, space, order, locked, group, alt, createdAt, style, pane } = mark;
  const common = { id: nanoid(), page, author, space, order, locked, group, alt, createdAt, style };
  return {
    ...common,
    ...(pane !== undefined && { pane }),
    kind: 'path',
    course: 'straight',
    points,
    closed: true,
    heads: 'none',
    from: null,
    to: null,
  };
}

/** A path keeps its id; a shape makes way for the polygon that it became. */
function changesFor(mark: Mark, path: MarkOf<'path'>): Change[] {
  if (mark.kind === 'path')
    return [{ do: 'patch', mark: mark.id, set: { points: path.points, from: null, to: null } }];
  return [
    { do: 'remove', mark: mark.id },
    { do: 'add', mark: path },
  ];
}

interface DotProps {
  label: string;
  at: readonly [number, number];
  small?: boolean;
  ground: MarkGround;
  onDrag(to: [number, number]): void;
  onDrop(to: [number, number]): void;
  onRemove?(): void;
}

function Dot({ label, at, small, ground, onDrag, onDrop, onRemove }: DotProps) {
  const dragging = useRef(false);
  const { scale, x, y } = ground.view;
  const pageAt = (event: PointerEvent): [number, number] => {
    const box = ground.host.getBoundingClientRect();
    const place = ground.toPage(event.clientX - box.left, event.clientY - box.top);
    return [place.x, place.y];
  };
  return (
    <button
      type="button"
      aria-label={label}
      className="pointer-events-auto absolute -mt-3 -ml-3 grid size-6 cursor-move touch-none place-items-center"
      style={{ left: x + at[0] * scale, top: y + at[1] * scale }}
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
        dragging.current = true;
        onDrag(pageAt(event));
      }}
      onPointerUp={(event) => {
        if (dragging.current) onDrop(pageAt(event));
        dragging.current = false;
      }}
      onDoubleClick={onRemove}
      onKeyDown={(event) => {
        if (event.key !== 'Delete' && event.key !== 'Backspace') return;
        event.stopPropagation();
        onRemove?.();
      }}
    >
      <span
        className={`rounded-full border-2 border-board bg-chalk ${small ? 'size-2 opacity-70' : 'size-3.5'}`}
      />
    </button>
  );
}
