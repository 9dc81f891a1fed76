import type { TextStyle } from '@doodla/core';
import type { Tool } from '../tool';
import { t } from '../../words';

export interface TextKept {
  text: TextStyle;
  /** Whether keys are shown on the glass while typing. */
  screenKeyboard: boolean;
}

export const text: Tool<TextKept> = {
  name: t('tools.text'),
  key: 'T',
  group: 'Write',
  needs: 'writing',
  least: 'words',
  cursor: 'text',
  kept: {
    text: {
      font: 'andika',
      size: 28,
      colour: '#000000',
      bold: false,
      italic: false,
      underline: false,
      background: null,
      align: 'left',
      list: 'none',
    },
    screenKeyboard: false,
  },
  colour: {
    of: (kept) => kept.text.colour,
    with: (kept, colour) => ({ text: { ...kept.text, colour } }),
  },
};
