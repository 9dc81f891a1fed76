import { figure, flag, words } from '../figure.js';
import type { Pen } from '../pen.js';
import { INK } from '../pen.js';
import type { Atom, Bond, Structure } from '../structure.js';
import { structureOf } from '../structure.js';

const [WIDTH, HEIGHT, MARGIN] = [480, 360, 44];
/** Longest bond, page units. */
const LONGEST = 62;
/** Of a bond: how far double lines lie apart, how wide a wedge is, how large letters are, how much a letter keeps free. */
const [APART, WEDGE, LETTERS, FREE] = [0.14, 0.2, 0.4, 0.27];
const LINE = 2.6;

type Point = readonly [number, number];

/** Structure formulas are drawn as IUPAC recommends (Brecher 2008, Pure Appl. Chem. 80, 277): carbon is a corner, wedges point at the viewer. */
const structure = figure({
  subject: 'chemistry',
  width: WIDTH,
  height: HEIGHT,
  fields: { smiles: words('CCO', 200), carbons: flag() },
  async draw(pen, { smiles, carbons }) {
    new StructureDrawing(pen, await structureOf(smiles), carbons).draw();
  },
});

/** Draws a structure as large as it fits. */
class StructureDrawing {
  /** Page units to a unit of the layout, and to a bond. */
  private readonly scale: number;
  private readonly unit: number;
  /** Middle of the layout. */
  private readonly middle: Point;
  private readonly at: readonly Point[];

  constructor(
    private readonly pen: Pen,
    private readonly structure: Structure,
    private readonly carbons: boolean,
  ) {
    const xs = structure.atoms.map(({ x }) => x);
    const ys = structure.atoms.map(({ y }) => y);
    const [left, right] = [Math.min(...xs), Math.max(...xs)];
    const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
    const wide = (WIDTH - 2 * MARGIN) / Math.max(0.01, right - left);
    const high = (HEIGHT - 2 * MARGIN) / Math.max(0.01, bottom - top);
    const long = meanLength(structure);
    const scale = Math.min(wide, high, LONGEST / long);
    this.unit = scale * long;
    this.at = structure.atoms.map(({ x, y }) => [
      WIDTH / 2 + (x - (left + right) / 2) * scale,
      HEIGHT / 2 + (y - (top + bottom) / 2) * scale,
    ]);
    this.scale = scale;
    this.middle = [(left + right) / 2, (top + bottom) / 2];
  }

  draw(): void {
    for (const bond of this.structure.bonds) this.bond(bond);
    for (const [i, atom] of this.structure.atoms.entries())
      if (this.hasLetters(atom)) this.letters(atom, this.at[i]!);
  }

  private hasLetters({ symbol, charge, mass, neighbours }: Atom): boolean {
    return this.carbons || symbol !== 'C' || charge !== 0 || mass !== 0 || neighbours.length === 0;
  }

  private bond({ from, to, order, wedge, ring }: Bond): void {
    const [a, b] = [this.end(from, to), this.end(to, from)];
    if (wedge !== 'none') return this.wedge(a, b, wedge);
    const across = this.across(a, b);
    const shifted = (by: number, shorter = 0): void => {
      const [dx, dy] = [(b[0] - a[0]) * shorter, (b[1] - a[1]) * shorter];
      const [sx, sy] = [across[0] * by, across[1] * by];
      this.pen.line([a[0] + sx + dx, a[1] + sy + dy, b[0] + sx - dx, b[1] + sy - dy], { width: LINE });
    };
    if (order === 2) {
      const side = this.sideOf(from, to, ring);
      if (side === 0) {
        shifted(APART / 2);
        shifted(-APART / 2);
      } else {
        shifted(0);
        shifted(side * APART, 0.12);
      }
      return;
    }
    shifted(0);
    if (order === 3) for (const by of [APART, -APART]) shifted(by);
  }

  /** On which side of a bond its second line lies: within a ring, else where more hangs; 0 for both sides alike. */
  private sideOf(from: number, to: number, ring: Bond['ring']): number {
    const [a, b] = [this.at[from]!, this.at[to]!];
    const sideOfPoint = ([x, y]: Point) => Math.sign((b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0]));
    if (ring) {
      const [x, y] = ring;
      const place: Point = [
        WIDTH / 2 + (x - this.middle[0]) * this.scale,
        HEIGHT / 2 + (y - this.middle[1]) * this.scale,
      ];
      return sideOfPoint(place);
    }
    const { atoms } = this.structure;
    if ([from, to].some((i) => atoms[i]!.neighbours.length === 1)) return 0;
    const others = [from, to].flatMap((i) =>
      atoms[i]!.neighbours.filter((one) => one !== from && one !== to),
    );
    return Math.sign(others.reduce((sum, i) => sum + sideOfPoint(this.at[i]!), 0)) || 1;
  }

  /** Where a bond begins, beside the letters of its atom. */
  private end(of: number, towards: number): Point {
    const [a, b] = [this.at[of]!, this.at[towards]!];
    if (!this.hasLetters(this.structure.atoms[of]!)) return a;
    const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const part = Math.min(0.4, (FREE * this.unit) / long);
    return [a[0] + (b[0] - a[0]) * part, a[1] + (b[1] - a[1]) * part];
  }

  private across(a: Point, b: Point): Point {
    const long = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    return [(-(b[1] - a[1]) / long) * this.unit, ((b[0] - a[0]) / long) * this.unit];
  }

  private wedge(a: Point, b: Point, wedge: 'front' | 'back'): void {
    const [ax, ay] = this.across(a, b);
    const half = WEDGE / 2;
    if (wedge === 'front') {
      const ends = [b[0] + ax * half, b[1] + ay * half, b[0] - ax * half, b[1] - ay * half];
      return this.pen.area([...a, ...ends], { fill: INK, edge: false });
    }
    const steps = 7;
    for (let i = 1; i <= steps; i++) {
      const part = i / steps;
      const [x, y] = [a[0] + (b[0] - a[0]) * part, a[1] + (b[1] - a[1]) * part];
      const wide = half * part;
      this.pen.line([x + ax * wide, y + ay * wide, x - ax * wide, y - ay * wide], { width: 2 });
    }
  }

  /** The sign of an atom and its hydrogen, which stands where no bond is. */
  private letters({ symbol, hydrogens, charge, mass, neighbours }: Atom, [x, y]: Point): void {
    const size = this.unit * LETTERS;
    const small = size * 0.66;
    const wide = this.pen.widthOf(symbol, size);
    this.pen.text(symbol, x, y, { size });
    if (mass !== 0)
      this.pen.text(String(mass), x - wide / 2 - 2, y - size * 0.34, { size: small, align: 'right' });
    const balance = neighbours.reduce((sum, i) => sum + Math.sign(Math.round((this.at[i]![0] - x) / 4)), 0);
    const isLeft = hydrogens > 0 && balance > 0;
    const count = hydrogens > 1 ? String(hydrogens) : '';
    const countWide = this.pen.widthOf(count, small);
    const hWide = this.pen.widthOf('H', size);
    let right = x + wide / 2;
    if (hydrogens > 0) {
      const start = isLeft ? x - wide / 2 - countWide - hWide : right;
      this.pen.text('H', start, y, { size, align: 'left' });
      if (count !== '') this.pen.text(count, start + hWide, y + size * 0.3, { size: small, align: 'left' });
      if (!isLeft) right += hWide + countWide;
    }
    if (charge !== 0) {
      const sign = `${Math.abs(charge) === 1 ? '' : Math.abs(charge)}${charge > 0 ? '+' : '−'}`;
      this.pen.text(sign, right + 1, y - size * 0.36, { size: small, align: 'left' });
    }
  }
}

function meanLength({ atoms, bonds }: Structure): number {
  if (bonds.length === 0) return 1;
  const long = bonds.map(({ from, to }) => {
    const [a, b] = [atoms[from]!, atoms[to]!];
    return Math.hypot(a.x - b.x, a.y - b.y);
  });
  return long.reduce((sum, one) => sum + one, 0) / long.length;
}

export const STRUCTURE = { structure };
