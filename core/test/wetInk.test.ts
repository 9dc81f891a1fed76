import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { packPoints } from '../src/ink/packedPoints.js';
import type { DrawMessage } from '../src/live/wetInk.js';
import { isDrawMessage } from '../src/live/wetInk.js';

const DRAWN: DrawMessage = {
  log: { kind: 'sitting', id: 'log' },
  page: 'page',
  stroke: 'stroke',
  from: 0,
  points: packPoints([1, 2, 0.5, 0, 3, 4, 0.5, 16])!,
  head: {
    space: 'class',
    style: { nature: 'pen', colour: '#0072b2', width: 3, opacity: 1 },
    pressure: true,
  },
};

describe('a part of wet ink from outside', () => {
  it('is taken as a hand draws it, with its head or without', () => {
    const { head, ...rest } = DRAWN;
    expect(isDrawMessage(DRAWN)).toBe(true);
    expect(isDrawMessage(rest)).toBe(true);
    expect(isDrawMessage({ ...DRAWN, head: { ...head, fade: 2000, space: 'student:wren' } })).toBe(true);
  });

  it.each<[string, unknown]>([
    ['nothing', undefined],
    ['a list', [DRAWN]],
    ['no log', { ...DRAWN, log: undefined }],
    ['a log without a name', { ...DRAWN, log: { kind: 'sitting' } }],
    ['a page that is an object', { ...DRAWN, page: {} }],
    ['a stroke with an endless name', { ...DRAWN, stroke: 's'.repeat(5000) }],
    ['a place before the beginning', { ...DRAWN, from: -1 }],
    ['a place that is no number', { ...DRAWN, from: NaN }],
    ['points as a list', { ...DRAWN, points: [1, 2, 0.5, 0] }],
    ['points that are none', { ...DRAWN, points: '****' }],
    ['far too many points at once', { ...DRAWN, points: 'A'.repeat(30_000) }],
    ['a head without a style', { ...DRAWN, head: { space: 'class', pressure: true } }],
    ['a width that covers everything', headWith({ width: 1e9 })],
    ['a colour that is a script', headWith({ colour: 'url(javascript:alert(1))' })],
    ['a nature that there is none of', headWith({ nature: 'laser' })],
    ['ink that never fades', { ...DRAWN, head: { ...DRAWN.head, fade: 1e12 } }],
    ['the space of nobody', { ...DRAWN, head: { ...DRAWN.head, space: 'everybody' } }],
  ])('is refused with %s', (_, message) => {
    expect(isDrawMessage(message)).toBe(false);
  });

  it('is judged without a throw, whatever it is', () => {
    fc.assert(
      fc.property(fc.anything(), fc.constantFrom(...Object.keys(DRAWN)), (value, key) => {
        expect(typeof isDrawMessage(value)).toBe('boolean');
        expect(typeof isDrawMessage({ ...DRAWN, [key]: value })).toBe('boolean');
      }),
    );
  });
});

function headWith(style: object): unknown {
  return { ...DRAWN, head: { ...DRAWN.head, style: { ...DRAWN.head!.style, ...style } } };
}
