import { CornerRightDown } from 'lucide-react';
import type { Form, StampName } from '@doodla/core';
import { FORMS, shapePath, STAMPS, toSvgPath } from '@doodla/core';
import type { ReactNode } from 'react';
import { lazy, Suspense } from 'react';
import { useStore } from '../store/useStore';
import { Choice } from '../ui/Choice';
import { PercentSlider } from '../ui/PercentSlider';
import { Slider } from '../ui/Slider';
import { Switch } from '../ui/Switch';
import type { LineType, PenCase, PenCaseState } from '../desk/penCase';
import type { PageDesk } from '../room/pageDesk';
import { ColourChoice } from '../ui/ColourChoice';
import { LineOrFilling } from '../ui/LineOrFilling';
import { OutlineSheet } from './OutlineSheet';
import { OwnStamps } from './OwnStamps';
import { SelectSheet } from './SelectSheet';
import { StampIcon } from './StampIcon';
import { TextSheet } from '../ui/TextSheet';

const ReadPage = lazy(() => import('./ReadPage'));

const NATURE_NAMES = { pen: 'Pen', pencil: 'Pencil', marker: 'Marker', chalk: 'Chalk' } as const;
const FORM_NAMES: Record<Form, string> = {
  rectangle: 'Rectangle',
  rounded: 'Rounded rectangle',
  ellipse: 'Ellipse',
  triangle: 'Triangle',
  rightTriangle: 'Right triangle',
  parallelogram: 'Parallelogram',
  trapezium: 'Trapezium',
  polygon: 'Regular polygon',
  star: 'Star',
  bracket: 'Bracket',
  balloon: 'Speech balloon',
};
const LINE_NAMES: Record<LineType, { name: string; face: ReactNode }> = {
  line: { name: 'Line', face: '╱' },
  arrow: { name: 'Arrow', face: '→' },
  doubleArrow: { name: 'Arrow both ways', face: '↔' },
  elbow: {
    name: 'Connector with right angles',
    face: <CornerRightDown aria-hidden size={20} className="mx-auto" />,
  },
  curve: { name: 'Curve', face: '⌒' },
  wave: { name: 'Curve with two bends', face: '∿' },
  polyline: { name: 'Corners by clicking', face: '⋀⋁' },
  polygon: { name: 'Free polygon by clicking', face: '⬠' },
};
const STAMP_NAMES: Record<StampName, string> = {
  tick: 'Tick',
  cross: 'Cross',
  question: 'Question mark',
  star: 'Star',
  heart: 'Heart',
  smile: 'Smile',
  arrow: 'Arrow',
  number: 'Counting number',
};
/** Everything that can be chosen for the tool in hand. */
export default function OptionsSheet({ desk }: { desk: PageDesk }) {
  const { penCase } = desk;
  const state = useStore(penCase);
  return (
    <div className="flex flex-col gap-3">
      {penCase.fixedColour === undefined && penCase.colour !== undefined && (
        <ColourChoice
          colour={penCase.colour}
          picking={desk.picking}
          onChange={(colour) => penCase.setColour(colour)}
        />
      )}
      <ToolSheet desk={desk} penCase={penCase} state={state} isTeacher={desk.isTeacher} />
    </div>
  );
}

interface SheetProps {
  penCase: PenCase;
  state: PenCaseState;
}

interface InWorkspace {
  desk: PageDesk;
}

interface ToolSheetProps extends InWorkspace {
  isTeacher: boolean;
}

function ToolSheet({ desk, penCase, state, isTeacher }: SheetProps & ToolSheetProps): ReactNode {
  switch (state.tool) {
    case 'select':
      return <SelectSheet desk={desk} />;
    case 'pen':
      return <PenSheet penCase={penCase} state={state} />;
    case 'highlighter':
      return <HighlighterSheet desk={desk} penCase={penCase} state={state} />;
    case 'text':
      return (
        <>
          <TextSheet
            style={state.text}
            onChange={(part) => penCase.patch({ text: { ...state.text, ...part } })}
          />
          <Switch
            label="Keys on the glass"
            checked={state.screenKeyboard}
            onChange={(screenKeyboard) => penCase.patch({ screenKeyboard })}
          />
        </>
      );
    case 'eraser':
      return <EraserSheet penCase={penCase} state={state} />;
    case 'shape':
      return <ShapeSheet desk={desk} penCase={penCase} state={state} />;
    case 'line':
      return <LineSheet desk={desk} penCase={penCase} state={state} />;
    case 'fill':
      return (
        <Slider
          label="Gaps that are bridged"
          value={state.fillGap}
          min={0}
          max={40}
          step={1}
          onChange={(fillGap) => penCase.patch({ fillGap })}
        />
      );
    case 'stamp':
      return <StampSheet penCase={penCase} state={state} isTeacher={isTeacher} />;
    default:
      return null;
  }
}

function StampSheet({ penCase, state: { stamp, ownStamp }, isTeacher }: SheetProps & { isTeacher: boolean }) {
  return (
    <>
      <Choice<StampName | ''>
        label="Stamp"
        value={ownStamp === null ? stamp : ''}
        options={STAMPS.map((value) => ({
          value,
          name: STAMP_NAMES[value],
          face: <StampIcon stamp={value} />,
        }))}
        onChange={(value) => value !== '' && penCase.patch({ stamp: value, ownStamp: null })}
      />
      {isTeacher && <OwnStamps penCase={penCase} />}
    </>
  );
}

function PenSheet({ penCase, state: { pen, steadying, finger, otherHand } }: SheetProps) {
  const set = (part: Partial<typeof pen>) => penCase.patch({ pen: { ...pen, ...part } });
  return (
    <>
      <Choice
        label="Kind of pen"
        value={pen.nature}
        columns={2}
        options={Object.entries(NATURE_NAMES).map(([value, name]) => ({
          value: value as typeof pen.nature,
          name,
        }))}
        onChange={(nature) => set({ nature })}
      />
      <Slider
        label="Width"
        value={pen.width}
        min={1}
        max={40}
        step={0.5}
        onChange={(width) => set({ width })}
      />
      <PercentSlider label="Opacity" value={pen.opacity} onChange={(opacity) => set({ opacity })} />
      <Slider
        label="Steadying"
        value={Math.round(steadying * 100)}
        min={0}
        max={90}
        step={5}
        unit=" %"
        onChange={(value) => penCase.patch({ steadying: value / 100 })}
      />
      <p className="text-sm">A finger, once a pen was used:</p>
      <Choice
        label="What a finger does once a pen was used"
        value={finger}
        columns={3}
        options={[
          { value: 'write', name: 'Writes' },
          { value: 'move', name: 'Moves' },
          { value: 'nothing', name: 'Nothing' },
        ]}
        onChange={(value) => penCase.patch({ finger: value })}
      />
      <Switch
        label="A pen of its own for the other half"
        checked={otherHand !== null}
        onChange={(on) => penCase.patch({ otherHand: on ? penCase.get().ready[1]! : null })}
      />
    </>
  );
}

function HighlighterSheet({ desk, penCase, state }: SheetProps & InWorkspace) {
  const { highlighter, straightHighlighter, markWords, wordsLook } = state;
  const set = (part: Partial<typeof highlighter>) =>
    penCase.patch({ highlighter: { ...highlighter, ...part } });
  return (
    <>
      <Slider
        label="Width"
        value={highlighter.width}
        min={6}
        max={80}
        step={1}
        onChange={(width) => set({ width })}
      />
      <PercentSlider label="Opacity" value={highlighter.opacity} onChange={(opacity) => set({ opacity })} />
      <Choice
        label="Way of highlighting"
        value={straightHighlighter ? 'straight' : 'free'}
        columns={2}
        options={[
          { value: 'free', name: 'Free' },
          { value: 'straight', name: 'Straight' },
        ]}
        onChange={(way) => penCase.patch({ straightHighlighter: way === 'straight' })}
      />
      <Switch
        label="Mark whole words where there is text"
        checked={markWords}
        onChange={(value) => penCase.patch({ markWords: value })}
      />
      {markWords && (
        <Choice
          label="How marked words look"
          value={wordsLook}
          columns={2}
          options={[
            { value: 'highlight', name: 'Highlighted' },
            { value: 'underline', name: 'Underlined' },
          ]}
          onChange={(value) => penCase.patch({ wordsLook: value })}
        />
      )}
      {markWords && desk.isTeacher && (
        <Suspense>
          <ReadPage desk={desk} />
        </Suspense>
      )}
    </>
  );
}

function EraserSheet({ penCase, state: { eraser, eraserRadius } }: SheetProps) {
  return (
    <>
      <Choice
        label="What the eraser takes"
        value={eraser}
        columns={2}
        options={[
          { value: 'whole', name: 'Whole marks' },
          { value: 'rubber', name: 'Only what it touches' },
        ]}
        onChange={(value) => penCase.patch({ eraser: value })}
      />
      <Slider
        label="Size"
        value={eraserRadius * 2}
        min={6}
        max={120}
        step={2}
        onChange={(size) => penCase.patch({ eraserRadius: size / 2 })}
      />
    </>
  );
}

function ShapeSheet({ desk, penCase, state: { form, sides, outline } }: SheetProps & InWorkspace) {
  return (
    <>
      <Choice
        label="Shape"
        value={form}
        options={FORMS.map((value) => ({
          value,
          name: FORM_NAMES[value],
          face: <FormIcon form={value} sides={sides} />,
        }))}
        onChange={(value) => penCase.patch({ form: value })}
      />
      {(form === 'polygon' || form === 'star') && (
        <Slider
          label="Corners"
          value={sides}
          min={3}
          max={12}
          step={1}
          onChange={(value) => penCase.patch({ sides: value })}
        />
      )}
      <FillingOf desk={desk} />
      <OutlineSheet
        style={outline}
        onChange={(part) => penCase.patch({ outline: { ...outline, ...part } })}
      />
    </>
  );
}

function LineSheet({ desk, penCase, state: { line, outline } }: SheetProps & InWorkspace) {
  return (
    <>
      <Choice
        label="Kind of line"
        value={line}
        options={Object.entries(LINE_NAMES).map(([value, { name, face }]) => ({
          value: value as LineType,
          name,
          face,
        }))}
        onChange={(value) => penCase.patch({ line: value })}
      />
      {line === 'polygon' && <FillingOf desk={desk} />}
      <OutlineSheet
        style={outline}
        onChange={(part) => penCase.patch({ outline: { ...outline, ...part } })}
      />
    </>
  );
}

/** Line and filling of the shapes that are drawn next. */
function FillingOf({ desk: { penCase, picking } }: InWorkspace) {
  const { outline, fillColour } = useStore(penCase);
  return (
    <LineOrFilling
      style={outline}
      suggestion={fillColour}
      picking={picking}
      fixed={penCase.fixedColour !== undefined}
      onChange={(part) => penCase.patch({ outline: { ...outline, ...part } })}
    />
  );
}

function FormIcon({ form, sides }: { form: Form; sides: number }) {
  const path = toSvgPath(shapePath({ form, sides, x: 2, y: 3, width: 24, height: 20 }));
  return (
    <svg viewBox="0 0 28 26" className="size-7" aria-hidden>
      <path d={path} fill="none" stroke="currentColor" strokeWidth={2} strokeLinejoin="round" />
    </svg>
  );
}
