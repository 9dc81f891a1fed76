import type { Mark, Rect, Transform } from '@doodla/core';
import { hasBox, markBox, ANGLE_STEP, turnedBack } from '@doodla/core';
import { useEffect, useReducer, useRef, useState } from 'react';
import { useStore } from '../store/useStore';
import type { PageDesk } from '../room/pageDesk';
import { CornerHandles } from './CornerHandles';
import { CropHandles } from './CropHandles';
import type { At, DragDotProps, DragKeys } from './DragDot';
import { DragDot } from './DragDot';
import { HANDLES, KEY_STEP } from './frameHandles';
import { SelectionBar } from './SelectionBar';
import { groundOf } from './markGround';
import type { Stage } from '../stage/stage';

/** Frame, handles and actions of what is selected. */
export function SelectionOverlay({ desk, stage }: { desk: PageDesk; stage: Stage }) {
  const ids = useStore(desk.selection.ids);
  useStore(stage.view);
  useMarkChanges(desk);
  const marks = desk.selection.marks();
  if (ids.size === 0 || marks.length === 0) return null;
  // What is done with some marks ends when others are selected.
  return <Frame key={[...ids].join()} marks={marks} desk={desk} stage={stage} />;
}

/** Draws anew whenever a mark of the page changes. */
function useMarkChanges(desk: PageDesk): void {
  const [, changed] = useReducer((count: number) => count + 1, 0);
  useEffect(() => desk.marksChanged.subscribe(changed), [desk]);
}

/** Distance of the frame from what is selected, and the side below which it has corner handles only; CSS pixels. */
const STAND_OFF = 10;
const SMALL = 76;

interface FrameProps {
  marks: readonly Mark[];
  desk: PageDesk;
  stage: Stage;
}

function Frame({ marks, desk, stage }: FrameProps) {
  const ground = groundOf(marks, desk, stage);
  const { scale, x, y } = ground.view;
  const frame = frameOf(marks, desk);
  const angle = useRef<HTMLOutputElement>(null);
  const locked = marks.every((mark) => mark.locked);
  const [isCropping, setCropping] = useState(false);
  // The frame stands off a little, so that small marks can still be taken hold of.
  const place = {
    left: x + frame.x * scale - STAND_OFF,
    top: y + frame.y * scale - STAND_OFF,
    width: frame.width * scale + 2 * STAND_OFF,
    height: frame.height * scale + 2 * STAND_OFF,
  };
  const isSmall = Math.min(place.width, place.height) < SMALL;
  const [first] = marks;
  const picture = marks.length === 1 && !locked && first?.kind === 'picture' ? first : undefined;
  return (
    <>
      <div
        className="pointer-events-none absolute border-2 border-dashed border-chalk-deep"
        style={{ ...place, transform: `rotate(${frame.rotation}deg)` }}
      >
        {picture && isCropping && <CropHandles picture={picture} desk={desk} ground={ground} stage={stage} />}
        {!locked &&
          !isCropping &&
          HANDLES.filter(({ x: u, y: v }) => !isSmall || (u !== 0.5 && v !== 0.5)).map((handle) => (
            <TransformDot
              key={handle.name}
              label={`Resize from the ${handle.name}`}
              cursor={handle.cursor}
              style={{ left: `${handle.x * 100}%`, top: `${handle.y * 100}%` }}
              ground={ground}
              stage={stage}
              desk={desk}
              transformFor={(start, now, keys) => resizeTransform(frame, handle, start, now, keys)}
              arrowTransform={(dx, dy, keys) =>
                resizeTransform(frame, handle, { x: 0, y: 0 }, { x: dx * KEY_STEP, y: dy * KEY_STEP }, keys)
              }
            />
          ))}
        {!locked && !isCropping && (
          <TransformDot
            label="Turn"
            cursor="grab"
            round
            style={{ left: '50%', top: -30 }}
            ground={ground}
            stage={stage}
            desk={desk}
            transformFor={(start, now, keys) => {
              const turn = turnTransform(frame, start, now, keys.steady);
              if (angle.current) angle.current.textContent = `${Math.round(turn.degrees)}°`;
              return turn;
            }}
            arrowTransform={(dx, dy, keys) => ({
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
        <CornerHandles mark={marks[0]!} desk={desk} ground={ground} stage={stage} />
      )}
      <SelectionBar
        marks={marks}
        desk={desk}
        place={place}
        room={stage.sides}
        crop={picture && { isOn: isCropping, toggle: () => setCropping(!isCropping) }}
      />
    </>
  );
}

interface TransformDotProps extends Pick<DragDotProps, 'label' | 'cursor' | 'round' | 'style' | 'ground'> {
  desk: PageDesk;
  stage: Stage;
  transformFor(start: At, now: At, keys: DragKeys): Transform;
  arrowTransform(dx: number, dy: number, keys: DragKeys): Transform;
  onEnd?(): void;
}

/** A handle that transforms what is selected; the page shows what would become of it. */
function TransformDot({ desk, stage, transformFor, arrowTransform, onEnd, ...dot }: TransformDotProps) {
  return (
    <DragDot
      {...dot}
      onDrag={(...drag) => stage.showPreview(desk.selection.preview(transformFor(...drag)))}
      onDrop={(...drag) => desk.selection.apply(transformFor(...drag))}
      onEnd={() => {
        stage.showPreview(undefined);
        onEnd?.();
      }}
      onArrow={(...arrow) => desk.selection.apply(arrowTransform(...arrow))}
    />
  );
}

/** A single turned box has a frame turned with it; several marks have an upright one. */
function frameOf(marks: readonly Mark[], desk: PageDesk): Rect & { rotation: number } {
  const [only] = marks;
  if (marks.length === 1 && only && hasBox(only)) return markBox(only);
  return { ...(desk.selection.bounds() ?? { x: 0, y: 0, width: 0, height: 0 }), rotation: 0 };
}

/** How far a side's or corner's handle was dragged, as a stretch away from the side opposite. */
function resizeTransform(
  frame: Rect & { rotation: number },
  handle: { x: number; y: number },
  start: At,
  now: At,
  { steady, centred }: DragKeys,
): Transform {
  const { x: dx, y: dy } = turnedBack(frame, start, now);
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
