// What a formula says, as one line: two ways to write the same in TeX are the same.
import { termsOf } from '@doodla/core/formulas';

export function saidBy(tex) {
  return said(termsOf(tex)).join(' ');
}

function said(terms) {
  return terms.flatMap((term) => {
    switch (term.is) {
      case 'number':
        return [...term.text];
      case 'letter':
      case 'sign':
        return [term.name];
      case 'call':
        return [`\\${term.name}`];
      case 'fraction':
        return ['{', ...said(term.over), 'over', ...said(term.under), '}'];
      case 'scripts':
        return [...said(term.base), ...(term.sub ? ['_{', ...said(term.sub), '}'] : []), ...(term.sup ? ['^{', ...said(term.sup), '}'] : [])]; // prettier-ignore
      case 'root':
        return ['root', ...(term.degree ? ['[', ...said(term.degree), ']'] : []), '{', ...said(term.of), '}'];
      case 'group':
        return [term.open, ...said(term.of), term.close];
      default:
        return [term.is];
    }
  });
}
