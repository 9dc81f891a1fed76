import type { GlyphBox } from '../handwriting/features.js';
import type { LetterNet } from '../handwriting/letterNet.js';
import { bottomOf, middleX, middleY } from './parts.js';
import type { Label, Sign } from './signs.js';

/** Something that stands in a row: a sign, or a fraction or root as a whole. */
export interface Element {
  box: GlyphBox;
  readings: readonly ElementReading[];
}

/** What an element may be. */
export interface ElementReading {
  tex: string;
  cost: number;
  /** How it stands in a row: on the line, about its middle, or round what is as high as it likes. */
  stand: { is: 'line'; bottom: number; top: number } | { is: 'middle' } | { is: 'tall' };
  /** What it is in the row. */
  role:
    | 'digit'
    | 'letter'
    | 'operator'
    | 'relation'
    | 'open'
    | 'close'
    | 'bar'
    | 'large'
    | 'after'
    | 'point'
    | 'whole';
}

/** The TeX of signs that are not their own. */
const TEX: Readonly<Record<string, string>> = {
  α: '\\alpha ', β: '\\beta ', γ: '\\gamma ', δ: '\\delta ', ε: '\\varepsilon ', θ: '\\theta ', λ: '\\lambda ', μ: '\\mu ', π: '\\pi ', ρ: '\\rho ',
  σ: '\\sigma ', φ: '\\varphi ', ω: '\\omega ', Δ: '\\Delta ', '∞': '\\infty ', '√': '\\surd ', '∫': '\\int ', '∑': '\\sum ', '−': '-', '≤': '\\le ', '≥': '\\ge ',
  '≠': '\\ne ', '≈': '\\approx ', '±': '\\pm ', '×': '\\times ', '·': '\\cdot ', '÷': '\\div ', '→': '\\to ', '%': '\\%',
}; // prettier-ignore
const ROLES: Readonly<Record<string, ElementReading['role']>> = {
  ...of('−+×·÷±/→:', 'operator'),
  ...of('=<>≤≥≠≈', 'relation'),
  ...of('([', 'open'),
  ...of(')]', 'close'),
  ...of('∑∫', 'large'),
  ...of('!%', 'after'),
  '|': 'bar',
  '.': 'point',
};
/** Signs that stand about the middle of a row, and those that are as high as what they stand beside. */
const MIDDLE = new Set([...'−+=<>≤≥≠≈±×·÷→∞:']);
const TALL = new Set([...'()[]|∑∫/']);

/** How rare a sign is in the formulas of schools, as a cost (common practice, no source). */
const RARE: Readonly<Record<string, number>> = {
  ...rare('x', 0), ...rare('yac', 0.6), ...rare('b', 2), ...rare('nktmprhuv', 0.8), ...rare('defgiqswz', 1.1), ...rare('lo', 4),
  ...rare('ABCDEFMPSTV', 2.2), ...rare('απλφβγθω', 0.8), ...rare('δεμρσΔ', 1), ...rare('√', 4), ...rare('×÷≈→%:', 0.5), ...rare('∑∫∞', 0.6),
  ...rare('|!', 1.2), ...rare('/', 2.5), ...rare('[]', 1.6),
}; // prettier-ignore

/** Readings that cost so much more than the best are not followed. */
const WORSE = 8;

/** A sign as an element of a row. */
export function elementOf({ box, labels }: Sign, net: LetterNet): Element {
  const readings = labels.map((label) => readingOf(label, net)).sort((a, b) => a.cost - b.cost);
  const most = (readings[0]?.cost ?? 0) + WORSE;
  return { box, readings: readings.filter(({ cost }) => cost <= most) };
}

function readingOf({ name, cost }: Label, net: LetterNet): ElementReading {
  const role = ROLES[name] ?? (/\d/.test(name) ? 'digit' : 'letter');
  const [bottom, top] = net.standing[net.characters.indexOf(name)] ?? [0, 1];
  return {
    tex: TEX[name] ?? name,
    cost: cost + (RARE[name] ?? 0),
    role,
    stand:
      name === '.'
        ? { is: 'line', bottom: 0, top: 0.15 }
        : MIDDLE.has(name)
          ? { is: 'middle' }
          : TALL.has(name)
            ? { is: 'tall' }
            : { is: 'line', bottom: bottom!, top: top! },
  };
}

/** Where a row stands: its base line, and how high a small letter is. */
export interface Row {
  base: number;
  small: number;
}

/** The middle of a row over its base line, in small letters. */
const AXIS = 0.55;
/** How far from its place something usually is, small letters. */
const OFF = { line: 0.26, middle: 0.4, dot: 0.25, tall: 0.7, high: 0.22 };
/** Brackets and bars are at least so high, small letters. */
const HIGH = 1.95;
const MOST_OFF = 14;

/** What it costs that an element stands in a row as it does. */
export function standingCost({ box }: Element, { stand, tex }: ElementReading, { base, small }: Row): number {
  const off = (value: number, usual: number, spread: number) => ((value - usual) / spread) ** 2 / 2;
  const bottom = (base - bottomOf(box)) / small;
  const top = (base - box.top) / small;
  const middle = (base - middleY(box)) / small;
  const cost =
    stand.is === 'line'
      ? off(bottom, stand.bottom, OFF.line) + off(top, stand.top, OFF.line)
      : stand.is === 'middle'
        ? off(middle, AXIS, tex === TEX['·'] ? OFF.dot : OFF.middle)
        : off(middle, AXIS, OFF.tall) + off(Math.min(HIGH, box.height / small), HIGH, OFF.high);
  return Math.min(MOST_OFF, cost);
}

/** The row that an element stands in, as far as it tells; `small` is that of rows that it is likely in. */
export function rowOf({ box }: Element, { stand }: ElementReading, small: number): Row {
  if (stand.is !== 'line' || stand.top - stand.bottom < 0.4)
    return { base: middleY(box) + AXIS * small, small };
  const own = box.height / (stand.top - stand.bottom);
  return { base: bottomOf(box) + stand.bottom * own, small: own };
}

/** Whether an element tells where its row stands. */
export const tellsRow = ({ stand }: ElementReading) => stand.is === 'line' && stand.top - stand.bottom > 0.7;

export const byPlace = (a: Element, b: Element) => middleX(a.box) - middleX(b.box);

function of(signs: string, role: ElementReading['role']): Record<string, ElementReading['role']> {
  return Object.fromEntries([...signs].map((sign) => [sign, role]));
}
function rare(signs: string, cost: number): Record<string, number> {
  return Object.fromEntries([...signs].map((sign) => [sign, cost]));
}
