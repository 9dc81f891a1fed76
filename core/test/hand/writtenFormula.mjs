// Formulas as a hand writes them: KaTeX says where each sign stands and how large it is, faces of single lines say how it is drawn.
import { createRequire } from 'node:module';
import { boxesOf, fontsIn, layOut } from '@doodla/core/formulas';
import { drawn } from './hand.mjs';
import { faceOf } from './writing.mjs';

const require = createRequire(import.meta.url);
const { greek, mathlow } = require('hersheytext/hersheytext.json');

/** Hershey's signs by character: his Greek of single lines and his signs of mathematics (A. V. Hershey 1967). */
const GREEK = { α: 'a', β: 'b', δ: 'd', ε: 'e', φ: 'f', γ: 'g', λ: 'l', μ: 'm', π: 'p', θ: 'q', ρ: 'r', σ: 's', ω: 'w', Δ: 'D' }; // prettier-ignore
const MATHS = { '±': '!', '≤': '&', '≥': "'", '∞': '_', '→': 'i' };
const ASCII = 33;

function hersheySign(set, key) {
  const { d } = set.chars[key.charCodeAt(0) - ASCII];
  return d
    .split('M')
    .map((part) => [...part.matchAll(/(-?[\d.]+),(-?[\d.]+)/g)].map(([, x, y]) => [Number(x), -Number(y)]))
    .filter(({ length }) => length > 0);
}

/** A root before its bar: em across, of its height up. */
const ROOT = [[0, 0.35], [0.14, 0.42], [0.42, 0], [0.85, 1]]; // prettier-ignore
/** Signs that no face has, as anybody writes them; 0 to 1, y up. */
const PLAIN = {
  '∑': [[[1, 0.9], [0.95, 1], [0.05, 1], [0.55, 0.52], [0, 0], [1, 0], [1, 0.1]]],
  '∫': [[[1, 0.93], [0.85, 1], [0.66, 0.9], [0.5, 0.5], [0.36, 0.1], [0.15, 0], [0, 0.07]]],
  '≈': [[[0, 0.75], [0.25, 1], [0.7, 0.7], [1, 0.95]], [[0, 0.1], [0.25, 0.35], [0.7, 0.05], [1, 0.3]]],
  '·': [[[0, 0], [1, 0.6]]],
}; // prettier-ignore
const SAME = { '−': '-', '∗': '*', '⋅': '·', ϕ: 'φ', ϵ: 'ε', '∣': '|', '\ue020': '/', ϑ: 'θ' };

/** How a character is drawn: lines in units of any size, y up. */
function linesOf(character, face) {
  const plain = PLAIN[character];
  if (plain) return plain;
  if (character in GREEK) return hersheySign(greek, GREEK[character]);
  // His signs for at most and at least have two bars.
  if (character in MATHS)
    return hersheySign(mathlow, MATHS[character]).slice(0, '≤≥'.includes(character) ? 2 : 4);
  return face.get(character === '−' ? '-' : character)?.lines;
}

/** The box of outlines in em: KaTeX's glyph, which says how large a written one is. */
function boxOf(fonts, item) {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [, ...n] of fonts.outline(item.font, item.text))
    for (let i = 0; i < n.length; i += 2) {
      [left, right] = [Math.min(left, n[i]), Math.max(right, n[i])];
      [top, bottom] = [Math.min(top, n[i + 1]), Math.max(bottom, n[i + 1])];
    }
  const { x, y, size } = item;
  return { left: x + left * size, top: y + top * size, right: x + right * size, bottom: y + bottom * size };
}

/** More room between signs than in print. */
const SPREAD = 1.22;

/**
 * Strokes of a formula (x, y, pressure, time) in a face, `size` units to the em. `fonts` are `FormulaFonts`; what stands where
 * comes from its TeX.
 */
export async function writtenFormula(tex, { face, size, random, fonts }) {
  const tree = boxesOf(tex);
  await fonts.load(fontsIn(tree));
  const { items } = layOut(tree, (font, text) => fonts.advance(font, text));
  const glyphs = faceOf(face);
  const slant = random.between(-0.05, 0.18);
  const rise = random.normal(0.015);
  const look = { ends: 0.006, corner: 0.04, tremor: 0.006 };
  const strokes = [];
  const place = (lines, box, spread = 0.5 * (SPREAD - 1)) => {
    const all = lines.flat();
    const [xs, ys] = [all.map(([x]) => x), all.map(([, y]) => y)];
    const [x0, y0] = [Math.min(...xs), Math.min(...ys)];
    const [w, h] = [Math.max(...xs) - x0 || 1, Math.max(...ys) - y0 || 1];
    const bh = (box.bottom - box.top) * random.between(0.92, 1.08);
    // What a face draws narrow is narrow; else a letter is as wide as in print.
    const wide = (box.right - box.left) * random.between(0.92, 1.1);
    const bw = h > 0.3 * w ? Math.min(wide, 1.3 * bh * (w / h)) : wide;
    const inset = (wide - bw) / 2;
    const em = Math.max(bw, bh);
    const [dx, dy] = [random.normal(0.03 * em), random.normal(0.035 * Math.min(em, 0.6))];
    const turn = random.normal(0.03);
    for (const line of lines) {
      const points = line.map(([x, y]) => {
        const v = (y - y0) / h;
        const [px, py] = [((x - x0) / w) * bw + slant * v * bh, -v * bh];
        const [tx, ty] = [px - turn * py, py + turn * px];
        const at = box.left * SPREAD + spread * (box.right - box.left) + inset + tx + dx;
        return [100 + size * at, 300 + size * (box.bottom + ty + dy + rise * at)];
      });
      const pair = points.length > 1 ? points : [points[0], [points[0][0] + 1, points[0][1]]];
      strokes.push(drawn(pair, Math.max(20, size * em), random, look));
    }
  };
  for (const item of items) {
    if (item.is === 'bar') {
      const { x, y, width } = item;
      const [left, right] = [x - random.between(0, 0.08), x + (width + random.between(0, 0.08)) * SPREAD];
      place([[[0, 0], [1, random.normal(0.1)]]], { left, right, top: y - 0.02, bottom: y }, 0); // prettier-ignore
    } else if (item.is === 'drawing') {
      const { x, y, top, room } = item;
      const mark = ROOT.map(([u, v]) => [u, -top * v]);
      const line = [...mark, [room * SPREAD, -top * random.between(0.97, 1.03)]];
      place([line], { left: x, right: x + room * SPREAD, top: y + top, bottom: y }, 0);
    } else if (item.is === 'signs') {
      let { x } = item;
      for (const letter of item.text) {
        const lines = linesOf(SAME[letter] ?? letter, glyphs);
        if (!lines) throw new Error(`no lines for ${letter} (${letter.codePointAt(0).toString(16)})`);
        place(lines, boxOf(fonts, { ...item, text: letter, x }));
        x += fonts.advance(item.font, letter) * item.size;
      }
    }
  }
  return strokes;
}
