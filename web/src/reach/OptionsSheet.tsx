import type { Form, LineStyle, StampName, TextStyle } from '@doodla/core';
import { DASHES, FORMS, shapePath, STAMPS, toSvgPath } from '@doodla/core';
import {
  Bold,
  Italic,
  List,
  ListOrdered,
  TextAlignCenter,
  TextAlignEnd,
  TextAlignStart,
  Underline,
} from 'lucide-react';
import type { ReactNode } from 'react';
import { useStore } from '../live/store';
import { Choice } from '../ui/Choice';
import { IconButton } from '../ui/IconButton';
import { Slider } from '../ui/Slider';
import type { LineType, PenCase, PenCaseState } from '../workspace/penCase';
import { ColourChoice } from './ColourChoice';
import { StampIcon } from './StampIcon';

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
const LINE_NAMES: Record<LineType, { name: string; face: string }> = {
  line: { name: 'Line', face: '╱' },
  arrow: { name: 'Arrow', face: '→' },
  doubleArrow: { name: 'Arrow both ways', face: '↔' },
  elbow: { name: 'Connector with right angles', face: '⮡' },
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
const FONT_NAMES = {
  andika: 'Early reader',
  serif: 'Serif',
  mono: 'Typewriter',
  hand: 'Handwriting',
} as const;

/** Everything that can be chosen for the tool in hand. */
export default function OptionsSheet({ penCase }: { penCase: PenCase }) {
  const state = useStore(penCase);
  return (
    <div className="flex flex-col gap-3">
      {penCase.fixedColour === undefined && penCase.colour !== undefined && (
        <ColourChoice colour={penCase.colour} onChange={(colour) => penCase.setColour(colour)} />
      )}
      <ToolSheet penCase={penCase} state={state} />
    </div>
  );
}

interface SheetProps {
  penCase: PenCase;
  state: PenCaseState;
}

function ToolSheet({ penCase, state }: SheetProps): ReactNode {
  switch (state.tool) {
    case 'pen':
      return <PenSheet penCase={penCase} state={state} />;
    case 'highlighter':
      return <HighlighterSheet penCase={penCase} state={state} />;
    case 'text':
      return (
        <TextSheet
          style={state.text}
          onChange={(part) => penCase.patch({ text: { ...state.text, ...part } })}
        />
      );
    case 'eraser':
      return <EraserSheet penCase={penCase} state={state} />;
    case 'shape':
      return <ShapeSheet penCase={penCase} state={state} />;
    case 'line':
      return <LineSheet penCase={penCase} state={state} />;
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
      return (
        <Choice
          label="Stamp"
          value={state.stamp}
          options={STAMPS.map((value) => ({
            value,
            name: STAMP_NAMES[value],
            face: <StampIcon stamp={value} />,
          }))}
          onChange={(stamp) => penCase.patch({ stamp })}
        />
      );
    default:
      return null;
  }
}

function PenSheet({ penCase, state: { pen, steadying, finger } }: SheetProps) {
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
      <Percent label="Opacity" value={pen.opacity} onChange={(opacity) => set({ opacity })} />
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
    </>
  );
}

function Percent({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number;
  onChange(value: number): void;
}) {
  return (
    <Slider
      label={label}
      value={Math.round(value * 100)}
      min={5}
      max={100}
      step={5}
      unit=" %"
      onChange={(part) => onChange(part / 100)}
    />
  );
}

function HighlighterSheet({ penCase, state: { highlighter, straightHighlighter } }: SheetProps) {
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
      <Percent label="Opacity" value={highlighter.opacity} onChange={(opacity) => set({ opacity })} />
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

export function TextSheet({
  style,
  onChange,
}: {
  style: TextStyle;
  onChange(part: Partial<TextStyle>): void;
}) {
  const flag = (key: 'bold' | 'italic' | 'underline', label: string, icon: ReactNode) => (
    <IconButton
      label={label}
      active={style[key]}
      icon={icon}
      onClick={() => onChange({ [key]: !style[key] })}
    />
  );
  return (
    <>
      <Choice
        label="Font"
        value={style.font}
        columns={2}
        options={Object.entries(FONT_NAMES).map(([value, name]) => ({
          value: value as TextStyle['font'],
          name,
        }))}
        onChange={(font) => onChange({ font })}
      />
      <Slider
        label="Size"
        value={style.size}
        min={10}
        max={120}
        step={1}
        onChange={(size) => onChange({ size })}
      />
      <div className="grid grid-cols-4 gap-1">
        {flag('bold', 'Bold', <Bold aria-hidden size={20} />)}
        {flag('italic', 'Italic', <Italic aria-hidden size={20} />)}
        {flag('underline', 'Underline', <Underline aria-hidden size={20} />)}
        <IconButton
          label="Paper behind the text"
          active={style.background !== null}
          icon={<span className="rounded bg-white px-1 text-sm text-ink">A</span>}
          onClick={() => onChange({ background: style.background === null ? '#ffffff' : null })}
        />
      </div>
      <Choice
        label="Alignment"
        value={style.align}
        columns={3}
        options={[
          { value: 'left', name: 'Left', face: <TextAlignStart aria-hidden size={20} /> },
          { value: 'center', name: 'Centred', face: <TextAlignCenter aria-hidden size={20} /> },
          { value: 'right', name: 'Right', face: <TextAlignEnd aria-hidden size={20} /> },
        ]}
        onChange={(align) => onChange({ align })}
      />
      <Choice
        label="List"
        value={style.list}
        columns={3}
        options={[
          { value: 'none', name: 'Plain' },
          { value: 'bullets', name: 'Bullets', face: <List aria-hidden size={20} /> },
          { value: 'numbers', name: 'Numbers', face: <ListOrdered aria-hidden size={20} /> },
        ]}
        onChange={(list) => onChange({ list })}
      />
    </>
  );
}

function ShapeSheet({ penCase, state: { form, sides, outline } }: SheetProps) {
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
      <OutlineSheet
        style={outline}
        filling
        onChange={(part) => penCase.patch({ outline: { ...outline, ...part } })}
      />
    </>
  );
}

function LineSheet({ penCase, state: { line, outline } }: SheetProps) {
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
      <OutlineSheet
        style={outline}
        filling={line === 'polygon'}
        onChange={(part) => penCase.patch({ outline: { ...outline, ...part } })}
      />
    </>
  );
}

interface OutlineSheetProps {
  style: LineStyle;
  filling: boolean;
  onChange(part: Partial<LineStyle>): void;
}

function OutlineSheet({ style, filling, onChange }: OutlineSheetProps) {
  const colour = style.line ?? style.fill ?? '#000000';
  const use = style.fill === null ? 'line' : style.line === null ? 'fill' : 'both';
  const setUse = (value: string) =>
    onChange({
      line: value === 'fill' ? null : colour,
      fill: value === 'line' ? null : (style.fill ?? lighter(colour)),
    });
  return (
    <>
      {filling && (
        <Choice
          label="Line or filling"
          value={use}
          columns={3}
          options={[
            { value: 'line', name: 'Line' },
            { value: 'both', name: 'Both' },
            { value: 'fill', name: 'Filling' },
          ]}
          onChange={setUse}
        />
      )}
      <Slider
        label="Width"
        value={style.width}
        min={1}
        max={30}
        step={0.5}
        onChange={(width) => onChange({ width })}
      />
      <Choice
        label="Line style"
        value={style.dash}
        columns={3}
        options={DASHES.map((value) => ({
          value,
          name: { solid: 'Solid', dashed: 'Dashed', dotted: 'Dotted' }[value],
        }))}
        onChange={(dash) => onChange({ dash })}
      />
      <Percent label="Opacity" value={style.opacity} onChange={(opacity) => onChange({ opacity })} />
    </>
  );
}

/** A pale version of a colour, to fill with. */
function lighter(colour: string): string {
  const part = (at: number) => Math.round(parseInt(colour.slice(at, at + 2), 16) * 0.3 + 255 * 0.7);
  return `#${[1, 3, 5].map((at) => part(at).toString(16).padStart(2, '0')).join('')}`;
}

function FormIcon({ form, sides }: { form: Form; sides: number }) {
  const path = toSvgPath(shapePath({ form, sides, x: 2, y: 3, width: 24, height: 20 }));
  return (
    <svg viewBox="0 0 28 26" className="size-7" aria-hidden>
      <path d={path} fill="none" stroke="currentColor" strokeWidth={2} strokeLinejoin="round" />
    </svg>
  );
}
