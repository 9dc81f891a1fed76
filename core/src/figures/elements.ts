/** A chemical element. */
export interface Element {
  /** Protons. */
  z: number;
  symbol: string;
  /** Standard atomic weight, or the mass number of the longest-lived isotope where there is none. */
  mass: number;
  hasWeight: boolean;
  /** By Pauling; nothing where none is tabulated. */
  electronegativity: number | undefined;
  /** At 25 °C and 1 bar; nothing where it is not known. */
  state: 'solid' | 'liquid' | 'gas' | undefined;
  /** 1 to 18; nothing for those that are listed below the table. */
  group: number | undefined;
  period: number;
}

/**
 * Symbol, weight and electronegativity. Weights: abridged to five digits, IUPAC Commission on Isotopic Abundances and Atomic
 * Weights 2021 (Pure Appl. Chem. 94, 573); in brackets mass numbers. Electronegativities by Pauling's scale. From memory; the
 * tests compare both with a package of published data.
 */
const TABLE = `H 1.008 2.20|He 4.0026|Li 6.94 0.98|Be 9.0122 1.57|B 10.81 2.04|C 12.011 2.55|N 14.007 3.04|O 15.999 3.44|F 18.998 3.98|Ne 20.180|
Na 22.990 0.93|Mg 24.305 1.31|Al 26.982 1.61|Si 28.085 1.90|P 30.974 2.19|S 32.06 2.58|Cl 35.45 3.16|Ar 39.95|
K 39.098 0.82|Ca 40.078 1.00|Sc 44.956 1.36|Ti 47.867 1.54|V 50.942 1.63|Cr 51.996 1.66|Mn 54.938 1.55|Fe 55.845 1.83|Co 58.933 1.88|Ni 58.693 1.91|Cu 63.546 1.90|Zn 65.38 1.65|Ga 69.723 1.81|Ge 72.630 2.01|As 74.922 2.18|Se 78.971 2.55|Br 79.904 2.96|Kr 83.798 3.00|
Rb 85.468 0.82|Sr 87.62 0.95|Y 88.906 1.22|Zr 91.224 1.33|Nb 92.906 1.6|Mo 95.95 2.16|Tc [97] 1.9|Ru 101.07 2.2|Rh 102.91 2.28|Pd 106.42 2.20|Ag 107.87 1.93|Cd 112.41 1.69|In 114.82 1.78|Sn 118.71 1.96|Sb 121.76 2.05|Te 127.60 2.1|I 126.90 2.66|Xe 131.29 2.6|
Cs 132.91 0.79|Ba 137.33 0.89|La 138.91 1.10|Ce 140.12 1.12|Pr 140.91 1.13|Nd 144.24 1.14|Pm [145]|Sm 150.36 1.17|Eu 151.96|Gd 157.25 1.20|Tb 158.93|Dy 162.50 1.22|Ho 164.93 1.23|Er 167.26 1.24|Tm 168.93 1.25|Yb 173.05|Lu 174.97 1.27|Hf 178.49 1.3|Ta 180.95 1.5|W 183.84 2.36|Re 186.21 1.9|Os 190.23 2.2|Ir 192.22 2.20|Pt 195.08 2.28|Au 196.97 2.54|Hg 200.59 2.00|Tl 204.38 1.62|Pb 207.2 2.33|Bi 208.98 2.02|Po [209] 2.0|At [210] 2.2|Rn [222]|
Fr [223] 0.7|Ra [226] 0.9|Ac [227] 1.1|Th 232.04 1.3|Pa 231.04 1.5|U 238.03 1.38|Np [237] 1.36|Pu [244] 1.28|Am [243] 1.3|Cm [247] 1.3|Bk [247] 1.3|Cf [251] 1.3|Es [252] 1.3|Fm [257] 1.3|Md [258] 1.3|No [259] 1.3|Lr [262]|Rf [267]|Db [268]|Sg [269]|Bh [270]|Hs [269]|Mt [277]|Ds [281]|Rg [282]|Cn [285]|Nh [286]|Fl [290]|Mc [290]|Lv [293]|Ts [294]|Og [294]`;

const GASES = 'H He N O F Ne Cl Ar Kr Xe Rn'.split(' ');
const LIQUIDS = ['Br', 'Hg'];
/** From here on it is not known what state an element has. */
const UNKNOWN_STATE = 104;
/** Numbers of the noble gases, with which periods end. */
const ENDS = [0, 2, 10, 18, 36, 54, 86, 118];

export const ELEMENTS: readonly Element[] = TABLE.replace(/\n/g, '')
  .split('|')
  .map((entry, i) => {
    const [symbol = '', mass = '', negativity] = entry.split(' ');
    const z = i + 1;
    return {
      z,
      symbol,
      mass: Number(mass.replace(/[[\]]/g, '')),
      hasWeight: !mass.startsWith('['),
      electronegativity: negativity === undefined ? undefined : Number(negativity),
      state: stateOf(symbol, z),
      ...placeOf(z),
    };
  });

function stateOf(symbol: string, z: number): Element['state'] {
  if (z >= UNKNOWN_STATE) return undefined;
  return GASES.includes(symbol) ? 'gas' : LIQUIDS.includes(symbol) ? 'liquid' : 'solid';
}

/** Where an element is in the table of 18 groups (IUPAC); lanthanoids and actinoids but the last are in none. */
function placeOf(z: number): Pick<Element, 'group' | 'period'> {
  const period = ENDS.findIndex((end) => z <= end);
  const [before, end] = [ENDS[period - 1]!, ENDS[period]!];
  const first = z - before;
  if (first <= (period === 1 ? 1 : 2)) return { period, group: first };
  const group = 18 - (end - z);
  // The fourteen of periods 6 and 7 that have no group of their own: lanthanum to ytterbium, actinium to nobelium.
  return { period, group: group >= 3 ? group : undefined };
}

const SHELLS = [
  '1s',
  '2s',
  '2p',
  '3s',
  '3p',
  '4s',
  '3d',
  '4p',
  '5s',
  '4d',
  '5p',
  '6s',
  '4f',
  '5d',
  '6p',
  '7s',
  '5f',
  '6d',
  '7p',
];
const ROOM: Readonly<Record<string, number>> = { s: 2, p: 6, d: 10, f: 14 };
/** Electrons that lie elsewhere than the rule has them: from, to, how many (NIST Atomic Spectra Database, ground states). */
const EXCEPTIONS: Readonly<Record<number, readonly [from: string, to: string, count: number]>> = {
  24: ['4s', '3d', 1],
  29: ['4s', '3d', 1],
  41: ['5s', '4d', 1],
  42: ['5s', '4d', 1],
  44: ['5s', '4d', 1],
  45: ['5s', '4d', 1],
  46: ['5s', '4d', 2],
  47: ['5s', '4d', 1],
  57: ['4f', '5d', 1],
  58: ['4f', '5d', 1],
  64: ['4f', '5d', 1],
  78: ['6s', '5d', 1],
  79: ['6s', '5d', 1],
  89: ['5f', '6d', 1],
  90: ['5f', '6d', 2],
  91: ['5f', '6d', 1],
  92: ['5f', '6d', 1],
  93: ['5f', '6d', 1],
  96: ['5f', '6d', 1],
  103: ['6d', '7p', 1],
};

/** Electrons of an atom or ion by subshell, in the order in which these are filled (Madelung's rule, with its exceptions). */
export function configurationOf(z: number, charge = 0): Map<string, number> {
  const filled = filledBy(charge < 0 ? z - charge : z);
  const exception = charge < 0 ? undefined : EXCEPTIONS[z];
  if (exception) {
    const [from, to, count] = exception;
    filled.set(from, (filled.get(from) ?? 0) - count);
    filled.set(to, (filled.get(to) ?? 0) + count);
  }
  for (let i = 0; i < charge; i++) {
    const outermost = [...filled].filter(([, count]) => count > 0).sort(([a], [b]) => outer(b) - outer(a))[0];
    if (outermost) filled.set(outermost[0], outermost[1] - 1);
  }
  return new Map([...filled].filter(([, count]) => count > 0));
}

/** Electrons of the outermost shell go first, of that those of the highest subshell. */
const outer = (shell: string) => Number(shell[0]) * 10 + 'spdf'.indexOf(shell[1]!);

function filledBy(electrons: number): Map<string, number> {
  let left = electrons;
  const filled = new Map<string, number>();
  for (const shell of SHELLS) {
    const count = Math.min(left, ROOM[shell[1]!]!);
    filled.set(shell, count);
    left -= count;
  }
  return filled;
}

/** Electrons by shell, the innermost first. */
export function shellsOf(z: number, charge = 0): number[] {
  const shells: number[] = [];
  for (const [shell, count] of configurationOf(z, charge)) {
    const n = Number(shell[0]) - 1;
    shells[n] = (shells[n] ?? 0) + count;
  }
  return shells;
}
