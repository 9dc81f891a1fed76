import type { Mark, Rect, Transform } from '@doodla/core';
import { hasBox, markBox } from '@doodla/core';
import { useEffect, useReducer, useRef } from 'react';
import type { PointerEvent } from 'react';
import { useStore } from '../live/store';
import type { Workspace } from '../workspace/workspace';
import { ANGLE_STEP } from '../tools/gesture';
import { CornerHandles } from './CornerHandles';
import { SelectionBar } from './SelectionBar';
import type { Stage } from './stage';

/** Frame, handles and actions of what is selected. */
export function SelectionOverlay({ workspace, stage }: { workspace: Workspace; stage: Stage }) {
  const ids = useStore(workspace.selection.ids);
  useStore(stage.view);
  useMarkChanges(workspace);
  const marks = workspace.selection.marks();
  if (ids.size === 0 || marks.length === 0) return null;
  return <Frame marks={marks} workspace={workspace} stage={stage} />;
}

/** Draws anew whenever a mark of the page changes. */
function useMarkChanges(workspace: Workspace): void {
  const [, changed] = useReducer((count: number) => count + 1, 0);
  useEffect(() => workspace.marksChanged.subscribe(changed), [workspace]);
}

/** Distance of the frame from what is selected, and the side below which it has corner handles only; CSS pixels. */
const STAND_OFF = 10;
const SMALL = 76;

/** Places of the eight handles on the frame, 0 to 1 each way. */
const HANDLES = [
  { x: 0, y: 0, cursor: 'nwse-resize', name: 'upper left' },
  { x: 0.5, y: 0, cursor: 'ns-resize', name: 'upper' },
  { x: 1, y: 0, cursor: 'nesw-resize', name: 'upper right' },
  { x: 1, y: 0.5, cursor: 'ew-resize', name: 'right' },
  { x: 1, y: 1, cursor: 'nwse-resize', name: 'lower right' },
  { x: 0.5, y: 1, cursor: 'ns-resize', name: 'lower' },
  { x: 0, y: 1, cursor: 'nesw-resize', name: 'lower left' },
  { x: 0, y: 0.5, cursor: 'ew-resize', name: 'left' },
] as const;

/** How far an arrow key drags a handle, page units. */
const KEY_STEP = 8;
const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface FrameProps {
  marks: readonly Mark[];
  workspace: Workspace;
  stage: Stage;
}

function Frame({ marks, workspace, stage }: FrameProps) {
  const { scale, x, y } = stage.view.get();
  const frame = frameOf(marks, workspace);
  const angle = useRef<HTMLOutputElement>(null);
  const locked = marks.every((mark) => mark.locked);
  // The frame stands off a little, so that small marks can still be taken hold of.
  const place = {
    left: x + frame.x * scale - STAND_OFF,
    top: y + frame.y * scale - STAND_OFF,
    width: frame.width * scale + 2 * STAND_OFF,
    height: frame.height * scale + 2 * STAND_OFF,
  };
  const isSmall = Math.min(place.width, place.height) < SMALL;
  return (
    <>
      <div
        className="pointer-events-none absolute border-2 border-dashed border-chalk-deep"
        style={{ ...place, transform: `rotate(${frame.rotation}deg)` }}
      >
        {!locked &&
          HANDLES.filter(({ x: u, y: v }) => !isSmall || (u !== 0.5 && v !== 0.5)).map((handle) => (
            <DragDot
              key={handle.name}
              label={`Resize from the ${handle.name}`}
              cursor={handle.cursor}
              style={{ left: `${handle.x * 100}%`, top: `${handle.y * 100}%` }}
              stage={stage}
              workspace={workspace}
              transformFor={(start, now, keys) => resizeTransform(frame, handle, start, now, keys)}
              keyTransform={(dx, dy, keys) =>
                resizeTransform(frame, handle, { x: 0, y: 0 }, { x: dx * KEY_STEP, y: dy * KEY_STEP }, keys)
              }
            />
          ))}
        {!locked && (
          <DragDot
            label="Turn"
            cursor="grab"
            round
            style={{ left: '50%', top: -30 }}
            stage={stage}
            workspace={workspace}
            transformFor={(start, now, keys) => {
              const turn = turnTransform(frame, start, now, keys.steady);
              if (angle.current) angle.current.textContent = `${Math.round(turn.degrees)}°`;
              return turn;
            }}
            keyTransform={(dx, dy, keys) => ({
              kind: 'turn',
              degrees: (dx + dy) * (keys.steady ? ANGLE_STEP : 1),
              x: frame.x + frame.width / 2,
              y: frame.y + frame.height / 2,
            })}
            onEnd={() => {
              if (angle.current) angle.current.textContent = '';
            }}
          />
        )}
        <output
          ref={angle}
          className="absolute -top-16 left-1/2 -translate-x-1/2 rounded bg-ink px-1 text-sm text-paper empty:hidden"
        />
      </div>
      {marks.length === 1 && !locked && !isSmall && (
        <CornerHandles mark={marks[0]!} workspace={workspace} stage={stage} />
      )}
      <SelectionBar marks={marks} workspace={workspace} place={place} room={stage.sides} />
    </>
  );
}

/** A single turned box has a frame turned with it; several marks have an upright one. */
function frameOf(marks: readonly Mark[], workspace: Workspace): Rect & { rotation: number } {
  const [only] = marks;
  if (marks.length === 1 && only && hasBox(only)) return markBox(only);
  return { ...(workspace.selection.bounds() ?? { x: 0, y: 0, width: 0, height: 0 }), rotation: 0 };
}

interface Keys {
  steady: boolean;
  centred: boolean;
}

type At = { x: number; y: number };

interface DragDotProps {
  label: string;
  cursor: string;
  round?: boolean;
  style: React.CSSProperties;
  stage: Stage;
  workspace: Workspace;
  transformFor(start: At, now: At, keys: Keys): Transform;
  /** What an arrow key does, -1 to 1 each way. */
  keyTransform(dx: number, dy: number, keys: Keys): Transform;
  onEnd?(): void;
}

/** A handle that is dragged; the page shows what would become of it. */
function DragDot({
  label,
  cursor,
  round,
  style,
  stage,
  workspace,
  transformFor,
  keyTransform,
  onEnd,
}: DragDotProps) {
  const start = useRef<At | undefined>(undefined);
  const pageAt = (event: PointerEvent) => {
    const box = stage.host.getBoundingClientRect();
    return stage.toPage(event.clientX - box.left, event.clientY - box.top);
  };
  const keys = (event: PointerEvent) => ({ steady: event.shiftKey, centred: event.altKey });
  return (
    <button
      type="button"
      aria-label={label}
      className="pointer-events-auto absolute -mt-4 -ml-4 grid size-8 touch-none place-items-center"
      style={{ ...style, cursor }}
      onKeyDown={(event) => {
        const [dx, dy] = ARROWS[event.key] ?? [0, 0];
        if (dx === 0 && dy === 0) return;
        event.preventDefault();
        event.stopPropagation();
        workspace.selection.apply(keyTransform(dx, dy, { steady: event.shiftKey, centred: event.altKey }));
      }}
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        start.current = pageAt(event);
      }}
      onPointerMove={(event) => {
        if (!start.current) return;
        stage.showPreview(
          workspace.selection.preview(transformFor(start.current, pageAt(event), keys(event))),
        );
      }}
      onPointerUp={(event) => {
        if (!start.current) return;
        const transform = transformFor(start.current, pageAt(event), keys(event));
        start.current = undefined;
        stage.showPreview(undefined);
        onEnd?.();
        workspace.selection.apply(transform);
      }}
      onPointerCancel={() => {
        start.current = undefined;
        stage.showPreview(undefined);
        onEnd?.();
      }}
    >
      <span className={`size-3.5 border-2 border-chalk-deep bg-paper ${round ? 'rounded-full' : ''}`} />
    </button>
  );
}

/** How far a side's or corner's handle was dragged, as a stretch away from the side opposite. */
function resizeTransform(
  frame: Rect & { rotation: number },
  handle: { x: number; y: number },
  start: At,
  now: At,
  { steady, centred }: Keys,
): Transform {
  const angle = (-frame.rotation * Math.PI) / 180;
  const [px, py] = [now.x - start.x, now.y - start.y];
  const dx = px * Math.cos(angle) - py * Math.sin(angle);
  const dy = px * Math.sin(angle) + py * Math.cos(angle);
  const reach = centred ? 2 : 1;
  const grow = (size: number, by: number, at: number) =>
    at === 0.5 ? 1 : Math.max(0.02, 1 + ((at === 1 ? by : -by) * reach) / Math.max(1, size));
  let [fx, fy] = [grow(frame.width, dx, handle.x), grow(frame.height, dy, handle.y)];
  const isCorner = handle.x !== 0.5 && handle.y !== 0.5;
  // Corners keep proportions; the key for it lets them go, and sides keep them only with it.
  if (isCorner !== steady) fx = fy = isCorner ? Math.max(fx, fy) : fx * fy;
  const fixed = (at: number) => (centred ? 0.5 : 1 - at);
  const turned = frame.rotation % 360 !== 0;
  const [ax, ay] = turned ? [0.5, 0.5] : [fixed(handle.x), fixed(handle.y)];
  return { kind: 'resize', fx, fy, x: frame.x + ax * frame.width, y: frame.y + ay * frame.height };
}

function turnTransform(
  frame: Rect,
  start: At,
  now: At,
  steady: boolean,
): Extract<Transform, { kind: 'turn' }> {
  const [x, y] = [frame.x + frame.width / 2, frame.y + frame.height / 2];
  const angle = (at: At) => (Math.atan2(at.y - y, at.x - x) * 180) / Math.PI;
  const degrees = angle(now) - angle(start);
  return { kind: 'turn', degrees: steady ? Math.round(degrees / ANGLE_STEP) * ANGLE_STEP : degrees, x, y };
}
