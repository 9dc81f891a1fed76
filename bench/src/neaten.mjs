// Neatening: what rough drawings and handwriting, made from seeds, are taken for, and how long that takes. One line a part.
import { readShapes, surelyShape } from '@doodla/core/neaten';
import { KINDS, roughShapes } from '../../core/test/hand/roughShapes.mjs';
import { seeded } from '../../core/test/hand/random.mjs';
import { COMMON_WORDS, FACES, writtenLetters } from '../../core/test/hand/writing.mjs';
import { median, percentile, report } from './report.mjs';

const [SHAPES, WORDS] = [2000, 500];
const SEED = { shapes: 77, words: 9001 };

const share = (part, of) => Math.round((10_000 * part) / of) / 10_000;
const rounded = (value) => Math.round(100 * value) / 100;

function shapes() {
  const confusion = {};
  let [first, three] = [0, 0];
  const times = [];
  for (const { strokes } of roughShapes(100, SEED.shapes + 1)) readShapes(strokes);
  for (const { kind, strokes } of roughShapes(SHAPES, SEED.shapes)) {
    const started = performance.now();
    const kinds = readShapes(strokes).map((reading) => reading.kind);
    times.push(performance.now() - started);
    const read = kinds[0] ?? 'none';
    confusion[kind] ??= {};
    confusion[kind][read] = (confusion[kind][read] ?? 0) + 1;
    if (read === kind) first += 1;
    if (kinds.slice(0, 3).includes(kind)) three += 1;
  }
  report('neaten: shapes', {
    seed: { value: SEED.shapes },
    wrongFirst: { value: share(SHAPES - first, SHAPES), limit: 0.03 },
    wrongAmongThree: { value: share(SHAPES - three, SHAPES), limit: 0.005 },
    medianMs: { value: rounded(median(times)) },
    p99Ms: { value: rounded(percentile(times, 0.99)), limit: 10 },
    kinds: { value: KINDS.length },
    confusion: { value: confusion },
  });
}

function words() {
  let taken = 0;
  for (let i = 0; i < WORDS; i++) {
    const random = seeded(SEED.words + i);
    const look = { face: random.pick(FACES), size: random.between(40, 140), random };
    const letters = writtenLetters(random.pick(COMMON_WORDS), look);
    const strokes = letters.flatMap((letter) => letter.strokes);
    if (surelyShape(strokes, []).length > 0) taken += 1;
  }
  report('neaten: words left alone', {
    seed: { value: SEED.words },
    takenForShapes: { value: share(taken, WORDS), limit: 0.005 },
  });
}

shapes();
words();
