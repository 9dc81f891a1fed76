import type { Term, Terms } from '@doodla/core/formulas';
import type { TextName } from './textNames';
import { language, t } from '.';

/** What signs and functions are called. */
const SIGNS: Readonly<Record<string, TextName>> = {
  '+': 'spoken.plus', '-': 'spoken.minus', cdot: 'spoken.times', times: 'spoken.times', ast: 'spoken.times',
  div: 'spoken.divided', ':': 'spoken.divided', '/': 'spoken.divided', '=': 'spoken.equals', equiv: 'spoken.equals',
  '<': 'spoken.less', '>': 'spoken.greater', leq: 'spoken.leq', geq: 'spoken.geq', neq: 'spoken.neq', approx: 'spoken.approx', pm: 'spoken.pm',
  '(': 'spoken.open', ')': 'spoken.close', '[': 'spoken.open', ']': 'spoken.close', '{': 'spoken.open', '}': 'spoken.close',
  '|': 'spoken.barSign', degree: 'spoken.degree', percent: 'spoken.percent', '!': 'spoken.factorial', to: 'spoken.to', in: 'spoken.in', notin: 'spoken.notin',
  infty: 'spoken.infty', prime: 'spoken.prime', parallel: 'spoken.parallel', perp: 'spoken.perp', angle: 'spoken.angle', Rightarrow: 'spoken.implies',
  implies: 'spoken.implies', Leftrightarrow: 'spoken.iff', iff: 'spoken.iff', cup: 'spoken.cup', cap: 'spoken.cap', subset: 'spoken.subset',
  ldots: 'spoken.dots', cdots: 'spoken.dots', ',': 'spoken.comma',
}; // prettier-ignore
const CALLS: Readonly<Record<string, TextName>> = {
  sin: 'spoken.sin', cos: 'spoken.cos', tan: 'spoken.tan', cot: 'spoken.cot', ln: 'spoken.ln', log: 'spoken.log', lg: 'spoken.log',
  lim: 'spoken.lim', sum: 'spoken.sum', prod: 'spoken.prod', int: 'spoken.int',
}; // prettier-ignore
const MARKED: Readonly<Record<string, TextName>> = {
  overline: 'spoken.bar', bar: 'spoken.bar', vec: 'spoken.vector', overrightarrow: 'spoken.vector', hat: 'spoken.hat', widehat: 'spoken.hat',
}; // prettier-ignore

/** A formula in words, as it is read aloud. */
export function sayFormula(terms: Terms): string {
  return terms
    .map(say)
    .filter((words) => words !== '')
    .join(' ');
}

const isShort = (terms: Terms | undefined) => terms?.length === 1 && terms[0]!.is !== 'fraction';

function say(term: Term): string {
  switch (term.is) {
    case 'number':
      return term.text.replace('.', decimalPoint());
    case 'letter':
      return sayLetter(term.name);
    case 'sign': {
      const known = SIGNS[term.name];
      return known ? t(known) : term.name;
    }
    case 'call':
      return t('spoken.of', { what: sayCall(term.name) });
    case 'fraction': {
      const parts = { over: sayFormula(term.over), under: sayFormula(term.under) };
      if (term.isChoice) return t('spoken.choose', parts);
      return t(isShort(term.over) && isShort(term.under) ? 'spoken.over' : 'spoken.fraction', parts);
    }
    case 'scripts':
      return sayScripts(term);
    case 'root':
      return sayRoot(term);
    case 'group':
      return sayGroup(term);
    case 'marked': {
      const known = MARKED[term.how];
      return known ? t(known, { of: sayFormula(term.of) }) : sayFormula(term.of);
    }
    case 'rows':
      return sayMatrix(term.rows);
    case 'words':
      return term.text.trim();
  }
}

/** Names of Greek letters are the same in most languages but for the capital that some write nouns with. */
function sayLetter(name: string): string {
  if (name === 'infty') return t('spoken.infty');
  if (name.length === 1) return name;
  const letter = language() === 'de' ? name.charAt(0).toUpperCase() + name.slice(1) : name.toLowerCase();
  return /^[A-Z]/.test(name) ? t('spoken.capital', { letter }) : letter;
}

function sayCall(name: string): string {
  const known = CALLS[name];
  return known ? t(known) : name;
}

function sayScripts({ base, sup, sub }: Term & { is: 'scripts' }): string {
  const [only] = base;
  if (only?.is === 'call') return sayCallWith(only.name, sup, sub);
  const words = sayFormula(base);
  const indexed = sub ? t('spoken.index', { base: words, sub: sayFormula(sub) }) : words;
  return sup ? sayPower(indexed, sup) : indexed;
}

function sayCallWith(name: string, sup: Terms | undefined, sub: Terms | undefined): string {
  const what = sayCall(name);
  if (name === 'lim' && sub) return t('spoken.limit', { sub: sayFormula(sub) });
  if (name === 'log' && sub && !sup) return t('spoken.logTo', { sub: sayFormula(sub) });
  if (sub && sup) return t('spoken.fromTo', { what, sub: sayFormula(sub), sup: sayFormula(sup) });
  if (sub) return t('spoken.overSign', { what, sub: sayFormula(sub) });
  return t('spoken.of', { what: sup ? sayPower(what, sup) : what });
}

function sayPower(base: string, sup: Terms): string {
  const [only] = sup;
  const number = sup.length === 1 && only?.is === 'number' ? only.text : '';
  if (number === '2') return t('spoken.squared', { base });
  if (number === '3') return t('spoken.cubed', { base });
  return t(isShort(sup) ? 'spoken.power' : 'spoken.longPower', { base, sup: sayFormula(sup) });
}

function sayRoot({ of: inner, degree }: Term & { is: 'root' }): string {
  const of = sayFormula(inner);
  const said = degree ? sayFormula(degree) : '2';
  const root =
    said === '2' ? t('spoken.squareRoot', { of }) : said === '3' ? t('spoken.cubeRoot', { of }) : t('spoken.anyRoot', { degree: said, of }); // prettier-ignore
  return isShort(inner) ? root : t('spoken.longRoot', { root });
}

function sayGroup({ open, close, of }: Term & { is: 'group' }): string {
  const [only] = of;
  if (only?.is === 'rows' && of.length === 1) {
    const rows = only.rows.map((row) => row.map(sayFormula).join(', ')).join('; ');
    return close === '.' ? t('spoken.cases', { rows }) : sayMatrix(only.rows);
  }
  const words = sayFormula(of);
  if (open === '|' && close === '|') return t('spoken.absolute', { of: words });
  const side = (name: string) => (name === '.' ? '' : say({ is: 'sign', name }));
  return [side(open), words, side(close)].filter((part) => part !== '').join(' ');
}

function sayMatrix(rows: (Term & { is: 'rows' })['rows']): string {
  const cells = rows.map((row) => row.map(sayFormula).join(', ')).join('; ');
  return t('spoken.matrix', { rows: rows.length, columns: rows[0]?.length ?? 0, cells });
}

const decimalPoint = () =>
  new Intl.NumberFormat(language()).formatToParts(1.5).find(({ type }) => type === 'decimal')?.value ?? '.';
