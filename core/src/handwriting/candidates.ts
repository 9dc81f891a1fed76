import type { GlyphBox } from './features.js';
import { boxOfGlyph, featuresOf } from './features.js';
import type { Judged, LetterNet } from './letterNet.js';
import type { Piece } from './pieces.js';

/** What a run of pieces may be, and what that costs; less is likelier. */
export interface Candidate {
  character: string;
  cost: number;
}

/** Where a line stands: its base line, and the height of a small letter. */
export interface Standing {
  base: number;
  xHeight: number;
}

/** What does not depend on where the line stands. */
export interface Run {
  from: number;
  to: number;
  box: GlyphBox;
  judged: Judged;
  /** The same without the signs over it, where there are such, and which they may be. */
  marked?: { judged: Judged; box: GlyphBox; signs: readonly Candidate[] };
  strokes: number;
}

/** So many candidates of a run are followed. */
const MOST = 7;
/** Signs that are smaller than this part of a small letter are told by place alone. */
const TINY = 0.38;
/** How far off its place a character usually is, in heights of a small letter; how far its width, as a logarithm; and the most that this costs. */
const OFF = { usual: 0.18, width: 0.3, most: 12 };
/** A sign over a letter is at most so high, and lies at least so far over it; heights of the letter under it. */
const SIGN = { most: 0.75, over: 0.02 };

const SIGNS = { acute: '\u0301', grave: '\u0300', circumflex: '\u0302', tilde: '\u0303', diaeresis: '\u0308', ring: '\u030a' }; // prettier-ignore
/** Letters with signs that are written in Europe's larger languages (Unicode's Latin-1 block). */
const ACCENTED = new Set([...'äëïöüÿÄËÏÖÜáéíóúýÁÉÍÓÚàèìòùÀÈÌÒÙâêîôûÂÊÎÔÛãñõÃÑÕåÅ']);

/** Nobody writes these in one go. */
const OF_TWO = new Set([...'!?:;="%']);

/** A run of pieces, judged. */
export function runOf(pieces: readonly Piece[], from: number, to: number, net: LetterNet): Run {
  const some = pieces.slice(from, to);
  const glyph = some.map(({ line }) => line);
  const box = boxOfGlyph(glyph);
  const run = { from, to, box, judged: net.judge(featuresOf(glyph)), strokes: some.length };
  const signs = some.length > 1 ? signsOver(some) : undefined;
  if (!signs) return run;
  const under = some.filter((piece) => !signs.includes(piece)).map(({ line }) => line);
  const judged = net.judge(featuresOf(under));
  return { ...run, marked: { judged, box: boxOfGlyph(under), signs: signNames(signs) } };
}

/** Pieces that lie over all others and are small beside them. */
function signsOver(pieces: readonly Piece[]): Piece[] | undefined {
  const tallest = pieces.reduce((a, b) => (b.box.height > a.box.height ? b : a));
  const over = pieces.filter(
    ({ box }) =>
      box.top + box.height < tallest.box.top - SIGN.over * tallest.box.height &&
      box.height < SIGN.most * tallest.box.height,
  );
  return over.length > 0 && over.length < pieces.length ? over : undefined;
}

/** Which signs some pieces over a letter may be. */
function signNames(pieces: readonly Piece[]): Candidate[] {
  if (pieces.length === 2) return [{ character: SIGNS.diaeresis, cost: 0.2 }];
  const [{ line, box }] = pieces as [Piece];
  const [dx, dy] = [line.at(-2)! - line[0]!, line.at(-1)! - line[1]!];
  const closed = Math.hypot(dx, dy) < 0.4 * Math.max(box.width, box.height);
  if (closed && box.height > 0.5 * box.width) return [{ character: SIGNS.ring, cost: 0.3 }];
  const peak = Math.min(...line.filter((_, i) => i % 2 === 1));
  const middleFirst = Math.abs(dy) < 0.35 * box.height && peak < Math.min(line[1]!, line.at(-1)!) - 0.5 * box.height; // prettier-ignore
  if (middleFirst) return [{ character: SIGNS.circumflex, cost: 0.3 }, { character: SIGNS.tilde, cost: 1.5 }]; // prettier-ignore
  if (box.width > 2.2 * box.height) return [{ character: SIGNS.tilde, cost: 0.4 }];
  const rises = dx * dy < 0;
  return [
    { character: rises ? SIGNS.acute : SIGNS.grave, cost: 0.4 },
    { character: SIGNS.tilde, cost: 2 },
  ];
}

/** What a run may be on a line that stands so, the likeliest first. */
export function candidatesOf(run: Run, standing: Standing, net: LetterNet): Candidate[] {
  const { box } = run;
  const { xHeight } = standing;
  if (Math.max(box.width, box.height) < TINY * xHeight) return tiny(box, standing);
  const dash = dashOf(box, standing);
  const plain = placed(run.judged, box, standing, net).filter(
    ({ character }) => run.strokes > 1 || !OF_TWO.has(character),
  );
  const all = [...plain, ...(run.marked ? accented(run.marked, standing, net) : []), ...dash];
  return all.sort((a, b) => a.cost - b.cost).slice(0, MOST);
}

function placed(judged: Judged, box: GlyphBox, { base, xHeight }: Standing, net: LetterNet): Candidate[] {
  const bottom = (base - box.top - box.height) / xHeight;
  const top = (base - box.top) / xHeight;
  const width = box.width / xHeight;
  const off = (value: number, usual: number) => ((value - usual) / OFF.usual) ** 2 / 4;
  return judged.likely.map((c) => {
    const character = net.characters[c]!;
    const [usualBottom, usualTop, usualWidth] = net.standing[c] as [number, number, number];
    const broad = (Math.log((width + 0.2) / (usualWidth + 0.2)) / OFF.width) ** 2 / 2;
    const place = Math.min(OFF.most, off(bottom, usualBottom) + off(top, usualTop) + broad);
    return { character, cost: judged.costs[c]! + place };
  });
}

function accented(marked: NonNullable<Run['marked']>, standing: Standing, net: LetterNet): Candidate[] {
  const under = placed(marked.judged, marked.box, standing, net)
    .sort((a, b) => a.cost - b.cost)
    .slice(0, MOST);
  return under.flatMap((letter) =>
    marked.signs.flatMap((sign) => {
      // Composed as Unicode does (UAX #15, NFC); what is not one letter then is none.
      const character = (letter.character + sign.character).normalize('NFC');
      return ACCENTED.has(character) ? [{ character, cost: letter.cost + sign.cost }] : [];
    }),
  );
}

/** Dots, commas and strokes over the line: told by where they are. */
function tiny(box: GlyphBox, { base, xHeight }: Standing): Candidate[] {
  const at = (base - box.top - box.height / 2) / xHeight;
  const long = Math.max(box.width, box.height) / xHeight;
  const low = Math.abs(at) / 0.3;
  const high = Math.max(0, 1 - at) / 0.4;
  const flat = box.width > 1.8 * box.height && long > 0.15;
  return [
    { character: '.', cost: low + Math.max(0, long - 0.15) * 6 },
    { character: ',', cost: Math.abs(at + 0.12) / 0.25 + Math.max(0, 0.2 - long) * 6 },
    { character: "'", cost: high + (flat ? 2 : 0.2) },
    { character: '-', cost: (flat ? 0.2 : 3) + Math.abs(at - 0.45) / 0.3 },
  ].sort((a, b) => a.cost - b.cost);
}

function dashOf(box: GlyphBox, { base, xHeight }: Standing): Candidate[] {
  if (box.width < 2.5 * box.height || box.height > 0.35 * xHeight) return [];
  const at = (base - box.top - box.height / 2) / xHeight;
  return [{ character: '-', cost: 0.3 + Math.abs(at - 0.5) / 0.25 }];
}
