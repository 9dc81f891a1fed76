import type { Form, LineStyle } from '@doodla/core';
import type { Tool } from '../tool';
import { t } from '../../words';

/** Line and filling of shapes and lines. */
export interface Outlined {
  outline: LineStyle;
}

export const OUTLINED: Required<Pick<Tool<Outlined>, 'colour' | 'inOneColour' | 'kept'>> = {
  kept: { outline: { line: '#000000', width: 3, dash: 'solid', fill: null, opacity: 1 } },
  colour: {
    of: ({ outline }) => outline.line ?? outline.fill ?? undefined,
    with: ({ outline }, colour) => ({
      outline: { ...outline, [outline.line === null ? 'fill' : 'line']: colour },
    }),
  },
  inOneColour: ({ outline }, colour) => ({
    outline: { ...outline, line: colour, fill: outline.fill && colour },
  }),
};

export interface ShapeKept extends Outlined {
  form: Form;
  sides: number;
}

export const shape: Tool<ShapeKept> = {
  ...OUTLINED,
  name: t('tools.shape'),
  key: 'S',
  group: 'Place',
  needs: 'writing',
  least: 'everything',
  kept: { ...OUTLINED.kept, form: 'rectangle', sides: 5 },
};
