import { Resvg } from '@resvg/resvg-js';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { describe, expect, it } from 'vitest';
import { checkPage, PAGE_SCHEMA } from '../src/archive/index.js';
import { EXERCISE_KINDS, makeExercise } from '../src/exercises/index.js';
import { drawFigure, FIGURE_IDS, figureOf, figureText, newFigure } from '../src/figures/index.js';
import { svgPage } from '../src/formats/index.js';
import { newIdeaMap, readIndented } from '../src/ideaMap/index.js';
import type { Mark } from '../src/index.js';
import { isMark } from '../src/index.js';
import { atlas } from './helpers/atlas.js';
import { formulaFonts } from './helpers/formulaFonts.js';
import { aPage, common } from './helpers/marks.js';
import { handout } from './helpers/originals.js';
import { pixelsOf } from './helpers/render.js';

const ajv = new Ajv2020({ strict: true, allowUnionTypes: true });
const isPageBySchema = ajv.compile(PAGE_SCHEMA);

const AREA = { x: 0, y: 0, width: 1280, height: 720 };
const LISTS: Record<string, string> = {
  ...{ groups: 'Birds: owl\nFish: eel', board: 'A: b\nC:', voteBoard: 'A: b\nC:', gaps: 'It is [wet].' },
  ...{ trueFalse: 'Bats fly. = true', choice: 'Legs? = 8 | 6', match: 'a = b\nc = d', pairs: 'a = b\nc = d' },
  ...{
    crossword: 'river = flows\nrain = falls',
    numberLine: '0.5\n1',
    mapNames: '',
    map: '',
    label: 'cat.png\near',
  },
  ...{
    dice: '',
    elements: '',
    tangram: '',
    patternBlocks: '',
    players: 'Reds\nBlues',
    events: '1450 = a\n1769 = b',
  },
};

const exercise = (kind: (typeof EXERCISE_KINDS)[number]): Mark[] =>
  makeExercise({
    ...{
      kind,
      text: LISTS[kind] ?? 'Ada\nBen\nCleo',
      title: 'Task',
      level: 'medium',
      seed: 3,
      area: AREA,
      count: 2,
    },
    media: new Map([['cat.png', { kind: 'picture', material: 'cat', width: 30, height: 20 }]]),
    map: { view: 'southAmerica', atlas: atlas('50m') },
    words: { ...{ across: 'a', down: 'd', most: 'm', least: 'l', isTrue: 't', isFalse: 'f' }, ...SAID },
  }).map((mark, i): Mark => ({ ...common(), ...mark, order: `a${String(i).padStart(4, '0')}1` }));
const SAID = { spin: 's', roll: 'r', pick: 'p', language: 'en' };

const figure = async (id: (typeof FIGURE_IDS)[number]): Promise<Mark> => {
  const recipe = newFigure(id);
  const drawing = await drawFigure(recipe, formulaFonts);
  const { width, height } = drawing;
  const box = { x: 20, y: 20, width, height, rotation: 0 };
  return { ...common(), kind: 'plot', ...box, recipe: figureText(recipe), drawing, style: { opacity: 1 } };
};

/** What comes back of marks that went into a lesson archive, whose schema another program (ajv) holds it to. */
function archived(marks: readonly Mark[]): readonly Mark[] {
  const text = JSON.stringify({ page: aPage(), marks });
  expect(isPageBySchema(JSON.parse(text)), ajv.errorsText(isPageBySchema.errors)).toBe(true);
  return checkPage(JSON.parse(text)).marks;
}

describe('a lesson archive keeps', () => {
  it.each(EXERCISE_KINDS)('an exercise with all its rules: %s', (kind) => {
    const marks = exercise(kind);
    expect(archived(marks)).toEqual(JSON.parse(JSON.stringify(marks)));
  });

  it.each(FIGURE_IDS)('a drawing and what it was made of: %s', async (id) => {
    const mark = await figure(id);
    const [back] = archived([mark]);
    expect(back).toEqual(mark);
    expect(figureOf((back as typeof mark & { recipe: string }).recipe)).toEqual(newFigure(id));
  });

  it('an idea map', () => {
    const { changes } = newIdeaMap(readIndented('Water\n Ice\n Vapour')[0]!, [640, 360], 'sides', common);
    const marks = changes.flatMap((change) => (change.do === 'add' ? change.mark : []));
    expect(marks.every(isMark)).toBe(true);
    expect(archived(marks)).toEqual(marks);
  });
});

/** Pixels of a picture that are darker than paper, in squares of so many pixels: how much of each. */
function darkness(
  data: Uint8Array | Uint8ClampedArray,
  width: number,
  height: number,
  square = 16,
): number[] {
  const [columns, rows] = [Math.floor(width / square), Math.floor(height / square)];
  const sums = new Array<number>(columns * rows).fill(0);
  for (let y = 0; y < rows * square; y++)
    for (let x = 0; x < columns * square; x++) {
      const at = 4 * (y * width + x);
      const grey = (data[at]! + data[at + 1]! + data[at + 2]!) / 3;
      sums[Math.floor(y / square) * columns + Math.floor(x / square)]! += (255 - grey) / 255 / square ** 2;
    }
  return sums;
}

describe('two other programs draw the same of', () => {
  it.each(FIGURE_IDS)('%s: pdf.js of the PDF, resvg of the SVG', async (id) => {
    const mark = await figure(id);
    // Letters are outlines, so nobody's fonts are asked.
    const page = aPage({ width: 800, height: 480 });
    const svg = svgPage({ page, marks: [mark] }, { title: '', hrefOf: () => undefined });
    const { pixels, width, height } = new Resvg(svg, { fitTo: { mode: 'width', value: 1200 } }).render();
    const pdf = await pixelsOf(await handout(new Uint8Array(), [page], [mark]), 0, 2);
    expect(Math.abs(pdf.width - width)).toBeLessThanOrEqual(1);
    const [one, other] = [darkness(pixels, width, height), darkness(pdf.data, pdf.width, pdf.height)];
    const ink = one.reduce((sum, value) => sum + value, 0);
    const off = one.reduce((sum, value, i) => sum + Math.abs(value - (other[i] ?? 0)), 0);
    expect(ink).toBeGreaterThan(1);
    expect(off / ink).toBeLessThan(0.15);
  });
});
