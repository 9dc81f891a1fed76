import { FigureError } from './figure.js';

/** An atom of a structure formula, with what hangs on it as hydrogen that is not drawn as an atom. Bonds are about 1 long. */
export interface Atom {
  symbol: string;
  x: number;
  y: number;
  hydrogens: number;
  charge: number;
  /** Nucleons, 0 where they are not said. */
  mass: number;
  neighbours: readonly number[];
}

/** A bond between two atoms, by their indexes; a wedge has its point at the first. */
export interface Bond {
  from: number;
  to: number;
  order: number;
  wedge: 'none' | 'front' | 'back';
  /** Middle of the smallest ring that it is in. */
  ring: readonly [number, number] | undefined;
}

export interface Structure {
  atoms: readonly Atom[];
  bonds: readonly Bond[];
}

/** Most atoms that are drawn. */
const MOST_ATOMS = 120;

/**
 * Reads a structure from SMILES (the open specification OpenSMILES) and lays it out by the library openchemlib, which is fetched
 * first. Throws a `FigureError` where it cannot be read or is too large.
 */
export async function structureOf(smiles: string): Promise<Structure> {
  if (smiles.trim() === '') throw new FigureError('nothing');
  const { Molecule } = await import('openchemlib');
  const molecule = moleculeOf(Molecule, smiles.trim());
  molecule.inventCoordinates();
  molecule.ensureHelperArrays(Molecule.cHelperBitParities);
  const count = molecule.getAllAtoms();
  if (count === 0 || count > MOST_ATOMS) throw new FigureError('structure', smiles);
  const atoms = Array.from({ length: count }, (_, i): Atom => ({
    symbol: molecule.getAtomLabel(i),
    x: molecule.getAtomX(i),
    y: -molecule.getAtomY(i),
    hydrogens: molecule.getImplicitHydrogens(i),
    charge: molecule.getAtomCharge(i),
    mass: molecule.getAtomMass(i),
    neighbours: Array.from({ length: molecule.getAllConnAtoms(i) }, (_, n) => molecule.getConnAtom(i, n)),
  }));
  const rings = ringsOf(molecule.getRingSet());
  const bonds = Array.from({ length: molecule.getAllBonds() }, (_, i): Bond => {
    const type = molecule.getBondType(i);
    return {
      from: molecule.getBondAtom(0, i),
      to: molecule.getBondAtom(1, i),
      order: molecule.getBondOrder(i),
      wedge: type === Molecule.cBondTypeUp ? 'front' : type === Molecule.cBondTypeDown ? 'back' : 'none',
      ring: middleOfRing(rings, i, atoms),
    };
  });
  return { atoms, bonds };
}

type Library = typeof import('openchemlib');

function moleculeOf(Molecule: Library['Molecule'], smiles: string) {
  // The library closes branches that are left open.
  if (smiles.split('(').length !== smiles.split(')').length) throw new FigureError('structure', smiles);
  try {
    return Molecule.fromSmiles(smiles);
  } catch (error) {
    // The library says in its own words what is wrong; what to do is said to the user.
    throw new FigureError('structure', smiles, { cause: error });
  }
}

type RingSet = ReturnType<InstanceType<Library['Molecule']>['getRingSet']>;
interface RingOf {
  atoms: readonly number[];
  bonds: readonly number[];
}

const ringsOf = (set: RingSet): RingOf[] =>
  Array.from({ length: set.getSize() }, (_, i) => ({
    atoms: set.getRingAtoms(i),
    bonds: set.getRingBonds(i),
  }));

function middleOfRing(rings: readonly RingOf[], bond: number, atoms: readonly Atom[]): Bond['ring'] {
  const own = rings
    .filter(({ bonds }) => bonds.includes(bond))
    .sort((a, b) => a.atoms.length - b.atoms.length)[0];
  if (!own) return undefined;
  const sum = (of: 'x' | 'y') => own.atoms.reduce((total, i) => total + atoms[i]![of], 0) / own.atoms.length;
  return [sum('x'), sum('y')];
}
