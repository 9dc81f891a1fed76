// Learns to tell the signs of formulas apart, from faces of single lines (those of the EMS series, and signs drawn by us) that are
// distorted by seeds, and writes what was learned into src/formulaInk/signs.json. Run by hand: node scripts/signs.mjs
import { featuresOf } from '../dist/handwriting/features.js';
import { seeded } from '../test/hand/random.mjs';
import { SCHOOL_PRINT } from '../test/hand/schoolPrint.mjs';
import { SCHOOL_SIGNS } from '../test/hand/schoolSigns.mjs';
import { faceOf, LEARNED_FACES } from '../test/hand/writing.mjs';
import { distorted, keep, learned, pairOf } from './learning.mjs';

const LATIN = [...'0123456789abcdefghiklmnopqrstuvwxyzABCDEFMPSTV'];
const OTHER = [...'αβγδεθλμπρσφωΔ∞√∫∑−+=<>≤≥≠≈±×÷→()[]|/!%:'];
const CHARACTERS = [...LATIN, ...OTHER];
const CLASSES = CHARACTERS.length + 1;
const [SAMPLES, HIDDEN, EPOCHS] = [Number(process.env.SAMPLES ?? 60), 128, Number(process.env.EPOCHS ?? 12)];
/** Of faces that have a sign, so many samples each; signs of few faces get more. */
const LEAST = 6 * SAMPLES;
const NONE_SAMPLES = 60 * SAMPLES;
/** Faces whose letters are no handwriting of formulas. */
const FACES = [
  ...LEARNED_FACES.filter((name) => name !== 'HersheyScript1' && name !== 'EMSAllure').map(faceOf),
  SCHOOL_PRINT,
  ...SCHOOL_SIGNS,
];
const random = seeded(31);

const glyphs = new Map(
  CHARACTERS.map((character) => [
    character,
    FACES.flatMap((face) => {
      const glyph = face.get(character);
      return glyph && glyph.lines.length > 0 ? [glyph] : [];
    }),
  ]),
);

/** The bar over a root is as long as what stands under it. */
function stretched(character, lines) {
  if (character !== '√') return lines;
  const far = Math.exp(random.between(-0.6, 1.9));
  return lines.map((line) => line.map(([x, y], i) => (i === line.length - 1 ? [line[i - 1][0] + (x - line[i - 1][0]) * far, y] : [x, y]))); // prettier-ignore
}

function samples() {
  const [inputs, wanted] = [[], []];
  for (const [n, character] of CHARACTERS.entries()) {
    const own = glyphs.get(character);
    const count = Math.max(SAMPLES, Math.ceil(LEAST / own.length));
    for (const glyph of own)
      for (let k = 0; k < count; k++) {
        inputs.push(featuresOf(distorted(stretched(character, glyph.lines), random)));
        wanted.push(n);
      }
  }
  const any = () => random.pick(glyphs.get(random.pick(CHARACTERS)));
  for (let k = 0; k < NONE_SAMPLES; k++) {
    const lines = pairOf(any(), any(), random);
    if (!lines || lines.length === 0) continue;
    inputs.push(featuresOf(distorted(lines, random)));
    wanted.push(CLASSES - 1);
  }
  return { inputs, wanted };
}

/** Heights are told by a small x. */
const withX = (face) => new Map([['x', SCHOOL_PRINT.get('x')], ...face]);

const net = learned(samples(), { classes: CLASSES, hidden: HIDDEN, epochs: EPOCHS, random });
keep(
  net,
  {
    characters: CHARACTERS,
    faces: [SCHOOL_PRINT, ...LEARNED_FACES.slice(0, 6).map(faceOf), ...SCHOOL_SIGNS.map(withX)],
    hidden: HIDDEN,
  },
  '../src/formulaInk/signs.json',
);
