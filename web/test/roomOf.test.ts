import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { besidePages, shownTools, toolsThatFit } from '../src/reach/stripRoom';
import { roomOf } from '../src/ui/roomOf';

describe('the room of a window', () => {
  it.each([
    [320, 640, 1, true],
    [390, 844, 1, true],
    [844, 390, 1, true],
    [759, 1000, 1, true],
    [820, 1180, 1, false],
    [1024, 768, 1, false],
    [1366, 625, 1, false],
    // With the largest letters, and enlarged by the browser to 400 %.
    [1024, 768, 1.5, true],
    [320, 200, 1, true],
    [1920, 1080, 56 / 44, false],
  ])(
    '%i × %i with letters %f times as large is laid out for the hand: %s',
    (width, height, scale, compact) => {
      expect(roomOf({ width, height }, scale).compact).toBe(compact);
    },
  );
});

describe('the strip of tools', () => {
  it('holds pen, highlighter, eraser and text even on the smallest screen', () => {
    expect(toolsThatFit(roomOf({ width: 320, height: 640 }, 1))).toBeGreaterThanOrEqual(4);
  });

  it('never holds more than fits, whatever the window and the letters', () => {
    const side = fc.integer({ min: 200, max: 1600 });
    fc.assert(
      fc.property(side, side, fc.constantFrom(1, 1.25, 1.5), (width, height, scale) => {
        const room = roomOf({ width, height }, scale);
        const taken = (toolsThatFit(room) + 3) * 44 * scale + 4 * scale;
        const pages = besidePages(room) ? 196 * scale : 0;
        expect(taken + pages).toBeLessThanOrEqual(Math.max(width, (3 * 44 + 4) * scale));
      }),
    );
  });
});

describe('the tool in hand', () => {
  const tools = ['pen', 'highlighter', 'eraser', 'text'];

  it('is in sight on the smallest strip, where another makes room for it', () => {
    expect(shownTools(tools, 2, 'pen')).toEqual(['pen', 'highlighter']);
    expect(shownTools(tools, 2, 'text')).toEqual(['pen', 'text']);
    expect(shownTools(tools, 1, 'wisp')).toEqual(['wisp']);
  });

  it('takes no room where there is none', () => {
    expect(shownTools(tools, 0, 'text')).toEqual([]);
  });
});
