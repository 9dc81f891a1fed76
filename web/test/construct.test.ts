import { describe, expect, it } from 'vitest';
import { aPath, aShape } from '../../core/test/helpers/marks';
import { lineMarks, putLines } from '../src/desk/construct';
import { TestDesk } from './helpers/testDesk';

describe('constructed lines', () => {
  const like = aPath({
    space: 'table:3',
    style: { line: '#0072b2', width: 6, dash: 'dashed', fill: null, opacity: 0.5 },
  });

  it('are plain thin lines that belong together, in the colour and space of what they come from', () => {
    const desk = new TestDesk([like]);
    const edges = [
      [[0, 0], [9, 9.123]],
      [[5, 5], [6, 7]],
    ] as const; // prettier-ignore
    putLines(desk, edges, like);
    expect(desk.done).toHaveLength(1);
    const [first, second] = desk.added;
    expect(first).toMatchObject({
      kind: 'path',
      points: [0, 0, 9, 9.12],
      space: 'table:3',
      from: null,
      to: null,
    });
    expect(first!.style).toEqual({ line: '#0072b2', width: 2, dash: 'solid', fill: null, opacity: 1 });
    expect(first!.group).not.toBeNull();
    expect(second!.group).toBe(first!.group);
    expect(first!.order < second!.order).toBe(true);
  });

  it('have a colour also where what they come from is only filled, and are none where there are none', () => {
    const filled = aShape({ style: { line: null, width: 1, dash: 'solid', fill: '#009e73', opacity: 1 } });
    const desk = new TestDesk([filled]);
    expect(lineMarks(desk, [[[0, 0], [1, 1]]], filled)[0]!.style).toMatchObject({ line: '#009e73', width: 1 }); // prettier-ignore
    putLines(desk, [], filled);
    expect(desk.done).toEqual([]);
  });
});
