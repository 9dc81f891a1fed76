import { RULES_AT_FIRST } from '@doodla/core';
import { describe, expect, it } from 'vitest';
import { ShownMarks } from '../src/room/shownMarks';

const marks = () => new ShownMarks((author) => ['wren', 'tove'].includes(author));
const seen = (shown: ShownMarks, me = 'ada') =>
  ['ada', 'server', 'wren', 'tove'].filter((author) => shown.isShown({ author }, me));

describe('whose marks are shown', () => {
  it('is everybody’s at first', () => expect(seen(marks())).toEqual(['ada', 'server', 'wren', 'tove']));

  it.each([
    ['all but students’', 'no-students', ['ada', 'server']],
    ['one’s own', { author: 'ada' }, ['ada']],
    ['a student’s', { author: 'tove' }, ['tove']],
  ] as const)('is %s where that is chosen', (_, of, expected) => {
    const shown = marks();
    shown.of.set(of);
    expect(seen(shown)).toEqual(expected);
  });

  it('is never those that are hidden, but by who wrote them', () => {
    const shown = marks();
    expect(shown.take({ ...RULES_AT_FIRST, hidden: ['wren'] })).toBe(true);
    expect(seen(shown)).toEqual(['ada', 'server', 'tove']);
    expect(seen(shown, 'wren')).toContain('wren');
    shown.of.set({ author: 'wren' });
    expect(seen(shown)).toEqual([]);
  });

  it('is to be looked at anew only where others are hidden', () => {
    const shown = marks();
    let told = 0;
    shown.rules.subscribe(() => (told += 1));
    expect(shown.take({ ...RULES_AT_FIRST })).toBe(false);
    expect(told).toBe(0);
    expect(shown.take({ ...RULES_AT_FIRST, handout: true })).toBe(false);
    expect(told).toBe(1);
  });
});
