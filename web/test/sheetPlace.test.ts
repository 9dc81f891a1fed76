import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sheetPlace } from '../src/answering/sheetPlace';

const PHONE = { width: 390, height: 844 };

describe('the sheet of a figure', () => {
  it('lies under the figure, at its right edge', () => {
    expect(sheetPlace({ top: 100, right: 300 }, 150, PHONE)).toEqual({ top: 154, right: 0 });
  });

  it('never reaches beyond the window, wherever the figure lies', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: PHONE.height, noNaN: true }),
        fc.double({ min: 44, max: PHONE.width, noNaN: true }),
        fc.double({ min: 1, max: 2000, noNaN: true }),
        (top, right, height) => {
          const place = sheetPlace({ top, right }, height, PHONE);
          const [from, end] = [top + place.top, right - place.right];
          expect(from + 0.4 * PHONE.height).toBeLessThan(PHONE.height);
          expect(end).toBeLessThanOrEqual(PHONE.width);
          expect(end - 256).toBeGreaterThanOrEqual(0);
        },
      ),
    );
  });
});
