import { describe, expect, it } from 'vitest';
import type { TemplateWords } from '../src/index.js';
import { boundsOfUnplaced, FORMATS, isMark, rectContains, TEMPLATES, templateOn } from '../src/index.js';
import { common } from './helpers/marks.js';

const LONG = 'Überraschendes';
const WORDS: TemplateWords = {
  topic: LONG,
  ideas: LONG,
  know: LONG,
  want: LONG,
  learned: LONG,
  one: LONG,
  both: LONG,
  other: LONG,
  forIt: LONG,
  againstIt: LONG,
  days: ['Montag', 'Dienstag', 'Mittwoch', 'Donnerstag', 'Freitag'],
  wentWell: LONG,
  wasHard: LONG,
  surprised: LONG,
  nextTime: LONG,
  compared: LONG,
};
/** Pages that lie and stand, large and small; sides in page units. */
const PAGES = [
  { x: 0, y: 0, ...FORMATS.wide },
  { x: 0, y: 0, width: FORMATS.a4.height, height: FORMATS.a4.width },
  { x: -300, y: 50, width: 400, height: 400 },
];
const cases = TEMPLATES.flatMap((id) => PAGES.map((page) => ({ id, page })));

describe('a ready template', () => {
  it.each(cases)(
    '$id is of ordinary marks that lie within the page ($page.width × $page.height)',
    ({ id, page }) => {
      const marks = templateOn(id, page, WORDS);
      expect(marks.length).toBeGreaterThan(3);
      for (const mark of marks) {
        expect(isMark({ ...common(), ...mark }), JSON.stringify(mark)).toBe(true);
        const { x, y, width, height } = boundsOfUnplaced(mark);
        expect(rectContains(page, x, y), JSON.stringify(mark)).toBe(true);
        expect(rectContains(page, x + width, y + height), JSON.stringify(mark)).toBe(true);
      }
    },
  );

  it.each(cases)(
    '$id has words of one line each, none over another ($page.width × $page.height)',
    ({ id, page }) => {
      const texts = templateOn(id, page, WORDS).filter((mark) => mark.kind === 'text');
      // What is drawn of a line reaches beyond its height; two lines would be nearly four sizes high.
      for (const text of texts) expect(boundsOfUnplaced(text).height).toBeLessThan(text.style.size * 2.6);
      const boxes = texts.map(({ x, y, width, style: { size } }) => ({ x, y, width, height: size * 1.6 }));
      for (const [i, a] of boxes.entries())
        for (const b of boxes.slice(i + 1)) {
          const apart =
            a.x + a.width <= b.x + 0.01 ||
            b.x + b.width <= a.x + 0.01 ||
            a.y + a.height <= b.y + 0.01 ||
            b.y + b.height <= a.y + 0.01;
          expect(apart, `${JSON.stringify(a)} ${JSON.stringify(b)}`).toBe(true);
        }
    },
  );
});
