// Graphs of three functions with their axes, and what poles and jumps are made of. One line of JSON.
import { FormulaFonts } from '@doodla/core/formulas';
import { curveOf, heightsOf, PlotPen, statementOf } from '@doodla/core/plots';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { median, percentile, report } from './report.mjs';

const ROUNDS = 60;
const WINDOW = { x: { from: -6, to: 6 }, y: { from: -4.5, to: 4.5 } };
const COLOURS = ['#0072b2', '#c14f00', '#007a5e'];
const THREES = [
  ['y=\\tan x', 'y=\\frac{1}{x}', 'y=\\lfloor x\\rfloor'],
  ['y=ax^2-3', 'y=2\\sin x', 'y=\\left|x\\right|-1'],
  ['y<x+1', 'y\\geq\\frac{x^2}{4}', 'x=2'],
];
/** How many pieces there are where nothing is joined that is apart. */
const PIECES = { '\\tan x': 5, '\\frac{1}{x}': 2, '\\lfloor x\\rfloor': 9, '\\left|x\\right|': 1 };

const require = createRequire(new URL('../../core/package.json', import.meta.url));
const folder = `${dirname(require.resolve('katex'))}/fonts`;
const fonts = new FormulaFonts((name) => {
  const { buffer, byteOffset, length } = readFileSync(`${folder}/KaTeX_${name}.ttf`);
  return Promise.resolve(buffer.slice(byteOffset, byteOffset + length));
});
const pen = new PlotPen(fonts);
const recipeOf = (three, from) => ({
  curves: three.map((tex, i) => ({ tex, colour: COLOURS[i], dash: 'solid' })),
  points: [],
  window: { ...WINDOW, x: { from, to: from + 12 } },
  letters: { a: 1 },
  shown: [],
  inPi: false,
  comma: false,
});

const times = [];
for (let i = 0; i < ROUNDS; i++) {
  // Moved a little each time, as by a hand that drags it.
  const recipe = recipeOf(THREES[i % THREES.length], -6 + i / 40);
  const started = performance.now();
  await pen.draw(recipe, 480, 360);
  times.push(performance.now() - started);
}
const joined = Object.entries(PIECES).filter(([tex, pieces]) => {
  const f = heightsOf(statementOf(`y=${tex}`).of, {});
  const seen = curveOf(f, WINDOW, 480).filter((piece) => piece.at(-2) > piece[0]);
  return seen.length !== pieces;
});

report('neaten: graphs', {
  medianMs: { value: Math.round(median(times.slice(6)) * 10) / 10, limit: 16 },
  p95Ms: { value: Math.round(percentile(times.slice(6), 0.95) * 10) / 10 },
  joinedFalsely: { value: joined.length, limit: 0 },
});
