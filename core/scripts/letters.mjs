// Learns to tell written characters apart, from faces of single lines (hersheytext: Hershey's and those of the EMS series) that
// are distorted by seeds, and writes what was learned into src/handwriting/letters.json. Run by hand: node scripts/letters.mjs
import { featuresOf } from '../dist/handwriting/features.js';
import { seeded } from '../test/hand/random.mjs';
import { SCHOOL_PRINT } from '../test/hand/schoolPrint.mjs';
import { faceOf, LEARNED_FACES } from '../test/hand/writing.mjs';
import { distorted, keep, learned, pairOf } from './learning.mjs';

const CHARACTERS = [...'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789!?&+=/()%@€$#:;"ßç'];
/** The last class: what is no character, but parts of two. */
const CLASSES = CHARACTERS.length + 1;
const [SAMPLES, HIDDEN, EPOCHS] = [Number(process.env.SAMPLES ?? 60), 144, Number(process.env.EPOCHS ?? 12)];
const NONE_SAMPLES = 8 * SAMPLES;
const FACES = [...LEARNED_FACES.map(faceOf), SCHOOL_PRINT];
const random = seeded(20);

function samples() {
  const [inputs, wanted] = [[], []];
  for (const face of FACES) {
    for (const [n, character] of CHARACTERS.entries()) {
      const glyph = face.get(character);
      if (!glyph || glyph.lines.length === 0) continue;
      for (let k = 0; k < SAMPLES; k++) {
        inputs.push(featuresOf(distorted(glyph.lines, random)));
        wanted.push(n);
      }
    }
    for (let k = 0; k < NONE_SAMPLES; k++) {
      const letter = () => face.get(random.pick(CHARACTERS.slice(0, 26)));
      const lines = pairOf(letter(), letter(), random);
      if (!lines || lines.length === 0) continue;
      inputs.push(featuresOf(distorted(lines, random)));
      wanted.push(CLASSES - 1);
    }
  }
  return { inputs, wanted };
}

const net = learned(samples(), { classes: CLASSES, hidden: HIDDEN, epochs: EPOCHS, random });
keep(net, { characters: CHARACTERS, faces: FACES, hidden: HIDDEN }, '../src/handwriting/letters.json');
