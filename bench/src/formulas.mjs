// Written formulas to typeset ones: formulas of schools in faces that nothing was learned from, made from seeds. One line of JSON.
import { learnedSigns, readFormula } from '@doodla/core/formula-ink';
import { FormulaFonts } from '@doodla/core/formulas';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { seeded } from '../../core/test/hand/random.mjs';
import { saidBy } from '../../core/test/hand/saidBy.mjs';
import { schoolFormula } from '../../core/test/hand/schoolFormulas.mjs';
import { UNSEEN_FACES } from '../../core/test/hand/writing.mjs';
import { writtenFormula } from '../../core/test/hand/writtenFormula.mjs';
import { median, percentile, report } from './report.mjs';

const FORMULAS = 200;
const SEED = 77_000;

const require = createRequire(new URL('../../core/package.json', import.meta.url));
const folder = `${dirname(require.resolve('katex'))}/fonts`;
const fonts = new FormulaFonts((name) => {
  const { buffer, byteOffset, length } = readFileSync(`${folder}/KaTeX_${name}.ttf`);
  return Promise.resolve(buffer.slice(byteOffset, byteOffset + length));
});
const net = await learnedSigns();

let [first, three] = [0, 0];
const times = [];
const wrong = [];
for (let i = 0; i < FORMULAS; i++) {
  const random = seeded(SEED + i);
  const tex = schoolFormula(random);
  const look = { face: random.pick(UNSEEN_FACES), size: random.between(50, 90), random, fonts };
  const strokes = await writtenFormula(tex, look);
  const started = performance.now();
  const readings = readFormula(strokes, net);
  times.push(performance.now() - started);
  const said = readings.map((reading) => saidBy(reading.tex));
  if (said[0] === saidBy(tex)) first += 1;
  if (said.slice(0, 3).includes(saidBy(tex))) three += 1;
  else wrong.push(`${tex} → ${readings[0]?.tex ?? ''}`);
}

report('neaten: formulas', {
  seed: { value: SEED },
  wrongFirst: { value: (FORMULAS - first) / FORMULAS, limit: 0.15 },
  wrongAmongThree: { value: (FORMULAS - three) / FORMULAS, limit: 0.05 },
  medianMs: { value: Math.round(median(times)) },
  p99Ms: { value: Math.round(percentile(times, 0.99)) },
  wrong: { value: wrong },
});
