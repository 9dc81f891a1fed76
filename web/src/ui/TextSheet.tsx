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
import { t } from '../words';

const FONT_NAMES = {
  andika: t('ui.earlyReader'),
  serif: t('ui.serif'),
  mono: t('ui.typewriter'),
  hand: t('ui.handwriting'),
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
        label={t('ui.font')}
        value={style.font}
        columns={2}
        options={Object.entries(FONT_NAMES).map(([value, name]) => ({
          value: value as TextStyle['font'],
          name,
        }))}
        onChange={(font) => onChange({ font })}
      />
      <Slider
        label={t('common.size')}
        value={style.size}
        min={10}
        max={120}
        step={1}
        onChange={(size) => onChange({ size })}
      />
      <div className="grid grid-cols-4 gap-1">
        {flag('bold', t('common.bold'), <Bold aria-hidden size={20} />)}
        {flag('italic', t('common.italic'), <Italic aria-hidden size={20} />)}
        {flag('underline', t('common.underline'), <Underline aria-hidden size={20} />)}
        <IconButton
          label={t('ui.paperBehindTheText')}
          active={style.background !== null}
          icon={<span className="rounded bg-white px-1 text-sm text-ink">A</span>}
          onClick={() => onChange({ background: style.background === null ? '#ffffff' : null })}
        />
      </div>
      <Choice
        label={t('ui.alignment')}
        value={style.align}
        columns={3}
        options={[
          { value: 'left', name: t('common.left'), face: <TextAlignStart aria-hidden size={20} /> },
          { value: 'center', name: t('ui.centred'), face: <TextAlignCenter aria-hidden size={20} /> },
          { value: 'right', name: t('common.right'), face: <TextAlignEnd aria-hidden size={20} /> },
        ]}
        onChange={(align) => onChange({ align })}
      />
      <Choice
        label={t('common.list')}
        value={style.list}
        columns={3}
        options={[
          { value: 'none', name: t('common.plain') },
          { value: 'bullets', name: t('ui.bullets'), face: <List aria-hidden size={20} /> },
          { value: 'numbers', name: t('ui.numbers'), face: <ListOrdered aria-hidden size={20} /> },
        ]}
        onChange={(list) => onChange({ list })}
      />
    </>
  );
}
