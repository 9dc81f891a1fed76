import type { TextStyle } from '@doodla/core';
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
import { Choice } from './Choice';
import { IconButton } from './IconButton';
import { Slider } from './Slider';

const FONT_NAMES = {
  andika: 'Early reader',
  serif: 'Serif',
  mono: 'Typewriter',
  hand: 'Handwriting',
} as const;

/** Everything that can be chosen for text. */
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
