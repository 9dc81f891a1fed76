import type { ReadNode } from './tree.js';
import { partsOf } from './tree.js';

/** A part of a formula by what it says, whatever it looks like. */
export type Term =
  /** A whole number or a decimal, with a point. */
  | { is: 'number'; text: string }
  /** A letter, Latin or Greek (`alpha`), or a constant (`infty`). */
  | { is: 'letter'; name: string }
  /** An operator, relation, bracket or other sign, by its character or its TeX name without the backslash. */
  | { is: 'sign'; name: string }
  /** A function or large operator by its name: `sin`, `lim`, `sum`, `int`. */
  | { is: 'call'; name: string }
  | { is: 'fraction'; over: Terms; under: Terms; isChoice: boolean }
  | { is: 'scripts'; base: Terms; sup: Terms | undefined; sub: Terms | undefined }
  | { is: 'root'; of: Terms; degree: Terms | undefined }
  /** What stands between brackets that grow with it; one of them may be missing. */
  | { is: 'group'; open: string; close: string; of: Terms }
  /** Something with a bar, an arrow or the like over or under it, by the TeX name of that. */
  | { is: 'marked'; how: string; of: Terms }
  | { is: 'rows'; rows: readonly (readonly Terms[])[] }
  | { is: 'words'; text: string };
export type Terms = readonly Term[];

/** Signs that are written in several ways, as one of them. */
const SAME: Readonly<Record<string, string>> = {
  le: 'leq', leqslant: 'leq', '≤': 'leq', ge: 'geq', geqslant: 'geq', '≥': 'geq', lt: '<', gt: '>', ne: 'neq', '≠': 'neq',
  '−': '-', '·': 'cdot', '×': 'times', '÷': 'div', '±': 'pm', '*': 'ast', '∗': 'ast', '∞': 'infty', '→': 'to', rightarrow: 'to',
  '°': 'degree', circ: 'circ', '%': 'percent', lvert: '|', rvert: '|', vert: '|', '∣': '|', mid: '|', lbrace: '{', rbrace: '}', '≈': 'approx',
  lbrack: '[', rbrack: ']', lparen: '(', rparen: ')', dots: 'ldots', dotsc: 'ldots', '…': 'ldots', varepsilon: 'epsilon', varphi: 'phi', vartheta: 'theta',
}; // prettier-ignore

/** What a formula says. Throws a `FormulaError`. */
export function termsOf(tex: string): Terms {
  return sequence(partsOf(tex));
}

function sequence(nodes: readonly ReadNode[]): Term[] {
  return numbersIn(nodes.flatMap(term));
}

/**
 * Digits that follow each other as numbers; a point or a comma between digits parts decimals. TeX hangs a power on the last digit
 * alone; it is meant for the number.
 */
function numbersIn(terms: readonly Term[]): Term[] {
  const joined: Term[] = [];
  terms.forEach((next, i) => {
    const last = joined.at(-1);
    const digits = digitsOf(next);
    if (last?.is !== 'number') joined.push(next);
    else if (isPoint(next) && digitsOf(terms[i + 1]) !== undefined && !last.text.includes('.'))
      joined[joined.length - 1] = { is: 'number', text: `${last.text}.` };
    else if (digits === undefined) joined.push(next);
    else joined[joined.length - 1] = withDigits(next, last.text + digits);
  });
  return joined;
}

const isPoint = (term: Term) => term.is === 'sign' && (term.name === '.' || term.name === ',');

/** The digits that a term begins with, where it is a number or one with a power. */
function digitsOf(term: Term | undefined): string | undefined {
  if (term?.is === 'number') return term.text;
  const [base] = term?.is === 'scripts' ? term.base : [];
  return base?.is === 'number' ? base.text : undefined;
}

function withDigits(term: Term, text: string): Term {
  const number: Term = { is: 'number', text };
  return term.is === 'scripts' ? { ...term, base: [number] } : number;
}

function term(node: ReadNode): Term[] {
  switch (node.type) {
    case 'textord':
    case 'mathord':
    case 'atom':
      return [signOf(node.text as string, node.type === 'mathord')];
    case 'delimsizing':
    case 'middle':
      return [signOf(node.delim as string, false)];
    case 'ordgroup':
    case 'styling':
    case 'color':
    case 'sizing':
    case 'mclass':
    case 'font':
    case 'hbox':
    case 'enclose':
    case 'pmb':
    case 'smash':
    case 'raisebox':
      return inside(node);
    case 'htmlmathml':
      return sequence(node.mathml as ReadNode[]);
    case 'op':
      return [named((node.name as string | undefined)?.slice(1), node)];
    case 'operatorname':
      return [{ is: 'call', name: plainText(node.body as ReadNode[]) }];
    case 'genfrac':
      return [fraction(node)];
    case 'supsub':
      return scripts(node);
    case 'sqrt':
      return [{ is: 'root', of: one(node.body), degree: maybe(node.index) }];
    case 'leftright':
      return [
        {
          is: 'group',
          open: signName(node.left as string),
          close: signName(node.right as string),
          of: inside(node),
        },
      ];
    case 'overline':
    case 'underline':
      return [{ is: 'marked', how: node.type, of: one(node.body) }];
    case 'accent':
    case 'accentUnder':
    case 'horizBrace':
      return [{ is: 'marked', how: (node.label as string).slice(1), of: one(node.base) }];
    case 'xArrow':
      return [{ is: 'sign', name: 'to' }, ...one(node.body)];
    case 'text':
      return [{ is: 'words', text: plainText(node.body as ReadNode[]) }];
    case 'array':
      return [{ is: 'rows', rows: (node.body as ReadNode[][]).map((row) => row.map((cell) => one(cell))) }];
    // What only makes room or is not seen.
    default:
      return [];
  }
}

function inside({ body }: ReadNode): Term[] {
  return Array.isArray(body) ? sequence(body as ReadNode[]) : one(body);
}

const one = (node: unknown): Term[] => (node ? sequence([node as ReadNode]) : []);
const maybe = (node: unknown): Terms | undefined => (node ? one(node) : undefined);

function signOf(text: string, isLetter: boolean): Term {
  if (/^\d$/.test(text)) return { is: 'number', text };
  const name = signName(text);
  const isName = isLetter || /^\p{L}$/u.test(name) || GREEK.test(name) || name === 'infty';
  return { is: isName ? 'letter' : 'sign', name };
}

function signName(text: string): string {
  const bare = text.replace(/^\\(?=.)/, '');
  return SAME[bare] ?? greekName(bare) ?? bare;
}

const GREEK =
  /^(alpha|beta|gamma|delta|epsilon|zeta|eta|theta|iota|kappa|lambda|mu|nu|xi|pi|rho|sigma|tau|upsilon|phi|chi|psi|omega|Gamma|Delta|Theta|Lambda|Xi|Pi|Sigma|Upsilon|Phi|Psi|Omega)$/;
const GREEK_LETTERS = 'αalpha βbeta γgamma δdelta εepsilon ζzeta ηeta θtheta ιiota κkappa λlambda μmu νnu ξxi πpi ρrho σsigma τtau φphi χchi ψpsi ωomega ΓGamma ΔDelta ΘTheta ΛLambda ΠPi ΣSigma ΦPhi ΨPsi ΩOmega'; // prettier-ignore

function greekName(sign: string): string | undefined {
  if ([...sign].length > 1) return undefined;
  return GREEK_LETTERS.split(' ')
    .find((each) => each.startsWith(sign) && GREEK.test(each.slice(1)))
    ?.slice(1);
}

function named(name: string | undefined, node: ReadNode): Term {
  if (name !== undefined) return { is: 'call', name };
  return { is: 'call', name: plainText((node.body as ReadNode[] | undefined) ?? []) };
}

function fraction(node: ReadNode): Term {
  const isChoice = node.hasBarLine === false && node.leftDelim === '(';
  return { is: 'fraction', over: one(node.numer), under: one(node.denom), isChoice };
}

/** Powers and indices; degrees are a sign of their own, and so are primes. */
function scripts(node: ReadNode): Term[] {
  const base = one(node.base);
  const sup = maybe(node.sup);
  const sub = maybe(node.sub);
  const [only] = sup ?? [];
  if (!sub && sup?.length === 1 && only?.is === 'sign' && only.name === 'circ')
    return [...base, { is: 'sign', name: 'degree' }];
  if (!sub && sup?.length && sup.every((each) => each.is === 'sign' && each.name === 'prime'))
    return [...base, ...sup];
  return [{ is: 'scripts', base, sup, sub }];
}

function plainText(nodes: readonly ReadNode[]): string {
  return nodes
    .map((node) =>
      typeof node.text === 'string'
        ? node.text
        : Array.isArray(node.body)
          ? plainText(node.body as ReadNode[])
          : '',
    ) // prettier-ignore
    .join('');
}
