import type { Mark, Measures, Transform } from '@doodla/core';
import { ANGLE_STEP, frameOf, frameResize, frameTurn, hasFigures, withCorners } from '@doodla/core';
import type { Guide } from '@doodla/core/construct';
import { lazy, useEffect, useReducer, useRef, useState } from 'react';
import { useStore } from '../store/useStore';
import type { PageDesk } from '../room/pageDesk';
import { CornerHandles } from './CornerHandles';
import { CropHandles } from './CropHandles';
import type { At, DragDotProps, DragKeys } from './DragDot';
import { DragDot } from './DragDot';
import { HANDLES, KEY_STEP } from './frameHandles';
import { SelectionBar } from './SelectionBar';
import { StretchGuides } from './stretchGuides';
import { guideMarks } from '../tools/select/moveGuides';
import { TOUCH_REACH } from '../tools/toolWork';
import { SidePanel } from '../ui/SidePanel';
import { groundOf } from './markGround';
import type { Stage } from '../stage/stage';
import { t } from '../words';

const MeasureSheet = lazy(() => import('./MeasureSheet'));
const ConstructSheet = lazy(() => import('./ConstructSheet'));

/** A panel of what is selected. */
type Panel = 'measures' | 'construct' | undefined;

/** Frame, handles and actions of what is selected. */
export function SelectionOverlay({ desk, stage }: { desk: PageDesk; stage: Stage }) {
  const ids = useStore(desk.selection.ids);
  useStore(stage.view);
  useMarkChanges(desk);
  const openPanel = useState<Panel>();
  const marks = desk.selection.marks();
  if (ids.size === 0 || marks.length === 0) return null;
  // What is done with some marks ends when others are selected.
  return <Frame key={[...ids].join()} marks={marks} desk={desk} stage={stage} openPanel={openPanel} />;
}

/** Draws anew whenever a mark of the page changes. */
function useMarkChanges(desk: PageDesk): void {
  const [, changed] = useReducer((count: number) => count + 1, 0);
  useEffect(() => desk.marksChanged.subscribe(changed), [desk]);
}

/** Distance of the frame from what is selected, where that has handles at its own corners too, and the side below which there are handles at the corners of the frame only; CSS pixels. */
const STAND_OFF = { plain: 10, cornered: 24 };
const SMALL = 56;

interface FrameProps {
  marks: readonly Mark[];
  desk: PageDesk;
  stage: Stage;
  /** The panel that is open; it stays so when a shape makes way for its polygon. */
  openPanel: [Panel, (panel: Panel) => void];
}

function Frame({ marks, desk, stage, openPanel: [panel, setPanel] }: FrameProps) {
  const ground = groundOf(marks, desk, stage);
  const { scale, x, y } = ground.view;
  const frame = frameOf(marks);
  const angle = useRef<HTMLOutputElement>(null);
  const locked = marks.every((mark) => mark.locked);
  const [isCropping, setCropping] = useState(false);
  const [stretchGuides] = useState(() => new StretchGuides(desk));
  const [first] = marks;
  const isSmall = Math.min(frame.width, frame.height) * scale < SMALL;
  const hasCorners = marks.length === 1 && !locked && !isSmall && withCorners(first!, String) !== undefined;
  // The frame stands off a little, so that small marks, and handles beside others, can still be taken hold of.
  const standOff = STAND_OFF[hasCorners ? 'cornered' : 'plain'];
  const place = {
    left: x + frame.x * scale - standOff,
    top: y + frame.y * scale - standOff,
    width: frame.width * scale + 2 * standOff,
    height: frame.height * scale + 2 * standOff,
  };
  const canMeasure = !locked && marks.every(({ kind }) => kind === 'path' || kind === 'shape');
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
              key={handle.resize}
              label={t(handle.resize)}
              cursor={handle.cursor}
              style={{ left: `${handle.x * 100}%`, top: `${handle.y * 100}%` }}
              ground={ground}
              stage={stage}
              desk={desk}
              transformFor={(start, now, keys) => {
                const resize = frameResize(frame, handle, start, now, keys);
                // Edges of a turned frame run along nothing else.
                if (frame.rotation % 360 !== 0) return { transform: resize };
                const guided = stretchGuides.guided(resize, start, keys, TOUCH_REACH / scale);
                return { transform: guided.resize, guides: guided.guides };
              }}
              arrowTransform={(dx, dy, keys) =>
                frameResize(frame, handle, { x: 0, y: 0 }, { x: dx * KEY_STEP, y: dy * KEY_STEP }, keys)
              }
            />
          ))}
        {!locked && !isCropping && (
          <TransformDot
            label={t('selection.turn')}
            cursor="grab"
            round
            style={{ left: '50%', top: -30 }}
            ground={ground}
            stage={stage}
            desk={desk}
            transformFor={(start, now, keys) => {
              const turn = frameTurn(frame, start, now, keys.steady);
              if (angle.current) angle.current.textContent = `${Math.round(turn.degrees)}°`;
              return { transform: turn };
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
      {hasCorners && (
        <CornerHandles
          mark={marks[0]!}
          desk={desk}
          ground={ground}
          stage={stage}
          lettered={panel !== undefined || hasFigures(marks[0]! as { measures?: Measures })}
        />
      )}
      <SelectionBar
        marks={marks}
        desk={desk}
        place={place}
        room={stage.sides}
        crop={picture && { isOn: isCropping, toggle: () => setCropping(!isCropping) }}
        panel={
          canMeasure
            ? { open: panel, toggle: (other) => setPanel(panel === other ? undefined : other) }
            : undefined
        }
      />
      {canMeasure && panel && (
        <SidePanel
          title={t(panel === 'measures' ? 'measures.title' : 'construct.title')}
          room={{ width: stage.host.clientWidth, ...stage.sides }}
          middle={place.left + place.width / 2}
          onClose={() => setPanel(undefined)}
        >
          {panel === 'measures' ? (
            <MeasureSheet marks={marks} desk={desk} />
          ) : (
            <ConstructSheet marks={marks} desk={desk} stage={stage} onDone={() => setPanel(undefined)} />
          )}
        </SidePanel>
      )}
    </>
  );
}

interface TransformDotProps extends Pick<DragDotProps, 'label' | 'cursor' | 'round' | 'style' | 'ground'> {
  desk: PageDesk;
  stage: Stage;
  transformFor(start: At, now: At, keys: DragKeys): { transform: Transform; guides?: readonly Guide[] };
  arrowTransform(dx: number, dy: number, keys: DragKeys): Transform;
  onEnd?(): void;
}

/** A handle that transforms what is selected; the page shows what would become of it. */
function TransformDot({ desk, stage, transformFor, arrowTransform, onEnd, ...dot }: TransformDotProps) {
  return (
    <DragDot
      {...dot}
      onDrag={(...drag) => {
        const { transform, guides = [] } = transformFor(...drag);
        const preview = desk.selection.preview(transform);
        const shown = guideMarks(desk, guides, TOUCH_REACH / dot.ground.view.scale);
        stage.showPreview({ ...preview, marks: [...(preview.marks ?? []), ...shown] });
      }}
      onDrop={(...drag) => desk.selection.apply(transformFor(...drag).transform)}
      onEnd={() => {
        stage.showPreview(undefined);
        onEnd?.();
      }}
      onArrow={(...arrow) => desk.selection.apply(arrowTransform(...arrow))}
    />
  );
}
