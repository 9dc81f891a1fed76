import { describe, expect, it } from 'vitest';
import type { Mark } from '../src/index.js';
import { checkMarks, describeMark } from '../src/index.js';
import { aPage, aPath, aShape, aStroke, aText, common, TEXT_STYLE } from './helpers/marks.js';

const picture: Mark = {
  ...common(),
  kind: 'picture',
  material: 'm',
  crop: { x: 0, y: 0, width: 1, height: 1 },
  flip: false,
  style: { opacity: 1 },
  x: 0,
  y: 0,
  width: 10,
  height: 10,
  rotation: 0,
};

describe('marks in words', () => {
  it.each([
    [aText({ text: 'The load splits' }), 'text: The load splits'],
    [aStroke(), 'ink'],
    [aStroke({ style: { ...aStroke().style, nature: 'highlighter' } }), 'highlight'],
    [aStroke({ alt: 'a ring round the arch' }), 'ink: a ring round the arch'],
    [aShape({ form: 'star' }), 'shape: star'],
    [aPath(), 'path'],
    [picture, 'picture'],
  ])('%o', (mark, words) => {
    const { name, content } = describeMark(mark);
    expect(content === undefined ? name : `${name}: ${content}`).toBe(words);
  });
});

describe('the check for those who cannot see well', () => {
  const problems = (mark: Mark, colour = '#ffffff') =>
    checkMarks([mark], { ...aPage(), surface: { kind: 'blank', colour, ruling: 'plain', spacing: 5 } }).map(
      ({ problem }) => problem,
    );

  it('misses descriptions of pictures', () => {
    expect(problems(picture)).toEqual([{ what: 'description' }]);
    expect(problems({ ...picture, alt: 'a model bridge' })).toEqual([]);
  });

  it('asks for 4.5 to 1, or 3 to 1 for large text (WCAG 2.2, 1.4.3), on what lies behind the text', () => {
    const grey = (size: number, background: string | null = null) =>
      aText({ style: { ...TEXT_STYLE, size, colour: '#888888', background } });
    expect(problems(grey(20))).toMatchObject([{ what: 'contrast', better: 'darker' }]);
    expect(problems(grey(30))).toEqual([]);
    expect(problems(grey(20), '#12352a')).toHaveLength(1);
    expect(problems(grey(20, '#000000'))).toEqual([]);
  });

  it('finds text that is very small', () => {
    expect(problems(aText({ style: { ...TEXT_STYLE, size: 9 } }))).toEqual([{ what: 'small' }]);
  });
});
