import { describe, expect, it } from 'vitest';
import { drawFigure, FigureError, newFigure } from '../src/figures/index.js';
import type { Structure } from '../src/figures/structure.js';
import { structureOf } from '../src/figures/structure.js';
import { formulaFonts } from './helpers/formulaFonts.js';

/** Formulas as handbooks print them (from memory), by structures as OpenSMILES writes them. */
const PRINTED: readonly [string, string, string][] = [
  ['methane', 'C', 'C H4'],
  ['ethanol', 'CCO', 'C2 H6 O'],
  ['acetic acid', 'CC(=O)O', 'C2 H4 O2'],
  ['benzene', 'c1ccccc1', 'C6 H6'],
  ['naphthalene', 'c1ccc2ccccc2c1', 'C10 H8'],
  ['caffeine', 'CN1C=NC2=C1C(=O)N(C(=O)N2C)C', 'C8 H10 N4 O2'],
  ['acetylsalicylic acid', 'CC(=O)Oc1ccccc1C(=O)O', 'C9 H8 O4'],
  ['glucose', 'OC[C@H]1OC(O)[C@H](O)[C@@H](O)[C@@H]1O', 'C6 H12 O6'],
  ['alanine', 'C[C@H](N)C(=O)O', 'C3 H7 N O2'],
  ['acetonitrile', 'CC#N', 'C2 H3 N'],
  ['water', 'O', 'H2 O'],
  ['pyrrole', 'c1cc[nH]c1', 'C4 H5 N'],
  ['sulfuric acid', 'OS(=O)(=O)O', 'H2 O4 S'],
];

/** What a structure is made of, carbon and hydrogen first (the order of Hill 1900). */
function formulaOf({ atoms }: Structure): string {
  const counts = new Map<string, number>();
  const add = (symbol: string, count: number) => counts.set(symbol, (counts.get(symbol) ?? 0) + count);
  for (const { symbol, hydrogens } of atoms) {
    add(symbol, 1);
    add('H', hydrogens);
  }
  const order = [...counts.keys()].sort(
    (a, b) =>
      Number(b === 'C') - Number(a === 'C') || Number(b === 'H') - Number(a === 'H') || (a < b ? -1 : 1),
  );
  return order
    .filter((symbol) => counts.get(symbol)! > 0)
    .map((symbol) => `${symbol}${counts.get(symbol) === 1 ? '' : counts.get(symbol)}`)
    .join(' ');
}

describe('a structure formula', () => {
  it.each(PRINTED)('%s holds what its printed formula says', async (_name, smiles, printed) => {
    expect(formulaOf(await structureOf(smiles))).toBe(printed);
  });

  it.each(PRINTED)(
    '%s is laid out with bonds of one length and no atom over another',
    async (_name, smiles) => {
      const { atoms, bonds } = await structureOf(smiles);
      const apart = (a: number, b: number) =>
        Math.hypot(atoms[a]!.x - atoms[b]!.x, atoms[a]!.y - atoms[b]!.y);
      const long = bonds.map(({ from, to }) => apart(from, to));
      const mean = long.reduce((sum, one) => sum + one, 0) / long.length;
      for (const one of long) expect(Math.abs(one / mean - 1)).toBeLessThan(0.35);
      for (let i = 0; i < atoms.length; i++)
        for (let j = 0; j < i; j++) expect(apart(i, j)).toBeGreaterThan(mean * 0.5);
    },
  );

  it('has alternating bonds in a ring of benzene, the second lines within', async () => {
    const { bonds } = await structureOf('c1ccccc1');
    expect(bonds.map(({ order }) => order).sort()).toEqual([1, 1, 1, 2, 2, 2]);
    expect(bonds.every(({ ring }) => ring !== undefined)).toBe(true);
  });

  it('has one wedge at a centre, which its mirror image has the other way', async () => {
    const wedges = async (smiles: string) =>
      (await structureOf(smiles)).bonds.flatMap(({ wedge }) => (wedge === 'none' ? [] : wedge));
    const [left, right] = [await wedges('C[C@H](N)C(=O)O'), await wedges('C[C@@H](N)C(=O)O')];
    expect(left).toHaveLength(1);
    expect(right).toHaveLength(1);
    expect(left).not.toEqual(right);
  });

  it('keeps charges and masses', async () => {
    const { atoms } = await structureOf('[NH4+].[13CH4]');
    expect(atoms.map(({ symbol, charge, mass, hydrogens }) => [symbol, charge, mass, hydrogens])).toEqual([
      ['N', 1, 0, 4],
      ['C', 0, 13, 4],
    ]);
  });

  it.each(['c1ccccc', 'C(C', 'Hello there', `C${'C'.repeat(150)}`])('%.20s is refused', async (smiles) => {
    await expect(structureOf(smiles)).rejects.toThrow(FigureError);
  });

  it('lies within its box, with and without the letters of carbon', async () => {
    for (const [, smiles] of PRINTED)
      for (const carbons of [true, false]) {
        const { parts, width, height } = await drawFigure(
          { figure: 'structure', values: { ...newFigure('structure').values, smiles, carbons } },
          formulaFonts,
        );
        const flat = parts.flatMap((part) => ('line' in part ? part.line : part.rings.flat()));
        for (let i = 0; i < flat.length; i += 2) {
          expect(flat[i]).toBeGreaterThan(-2);
          expect(flat[i]).toBeLessThan(width + 2);
          expect(flat[i + 1]).toBeGreaterThan(-2);
          expect(flat[i + 1]).toBeLessThan(height + 2);
        }
      }
  });
});
