// Formulas as they are written in schools, made from seeds (invented; which kinds there are is common practice, no source).
const LETTERS = ['x', 'y', 'a', 'b', 'n', 't', 'k', 'm', 'c'];
const GREEK = ['\\alpha', '\\beta', '\\gamma', '\\pi', '\\lambda', '\\theta', '\\omega', '\\Delta', '\\mu', '\\sigma', '\\delta', '\\rho']; // prettier-ignore

/** A formula of one of many kinds. */
export function schoolFormula(random) {
  const number = (most = 20) => String(random.whole(1, most));
  const digit = () => number(9);
  const letter = () => random.pick(LETTERS);
  const greek = () => `${random.pick(GREEK)} `;
  const relation = () => random.pick(['=', '<', '>', '\\le ', '\\ge ', '\\ne ', '\\approx ']);
  const sign = () => random.pick(['+', '-']);
  const times = () => random.pick(['\\cdot ', '\\cdot ', '\\times ', '\\div ', ':']);
  const factor = () => (random.chance(0.5) ? '' : digit());
  const term = () =>
    `${factor()}${letter()}${random.chance(0.4) ? `^${random.pick(['2', '3', 'n', '{-1}'])}` : ''}`;
  const sum = () => `${term()}${sign()}${random.chance(0.5) ? number() : term()}`;
  const fraction = (a, b) => `\\frac{${a}}{${b}}`;
  const kinds = [
    () => `${factor()}x^2${sign()}${digit()}x${sign()}${number()}=0`,
    () => `${sum()}${relation()}${number()}`,
    () =>
      `${fraction(digit(), number())}${sign()}${fraction(digit(), digit())}=${fraction(number(), number())}`,
    () => `${fraction(sum(), term())}${relation()}${number()}`,
    () =>
      `\\sqrt{${random.pick([number(99), sum(), `${letter()}^2+${letter()}^2`])}}${relation()}${number()}`,
    () => `\\sqrt[3]{${number(64)}}=${digit()}`,
    () => `${number()}${times()}(${sum()})${sign()}${digit()}`,
    () => `(${letter()}${sign()}${digit()})^2=${letter()}^2${sign()}${number()}${letter()}+${number(81)}`,
    () => `${greek()}+${greek()}+${greek()}=180`,
    () => `${greek()}${relation()}${fraction(digit(), digit())}${random.pick(['', '\\pi '])}`,
    () => `${letter()}_{${digit()}}${sign()}${letter()}_{${digit()}}=${term()}`,
    () => `x_{1}=${fraction(`-b${sign()}\\sqrt{b^2-4ac}`, '2a')}`,
    () => `f(x)=${term()}${sign()}${number()}`,
    () => `y=${fraction(digit(), digit())}x${sign()}${number()}`,
    () => `A=\\pi r^2`,
    () => `\\left|${letter()}${sign()}${digit()}\\right|${random.pick(['<', '\\le ', '='])}${number()}`,
    () => `${number(99)}${sign()}${number(99)}${times()}${digit()}=${number(99)}`,
    () => `${number(9)}.${number(99)}${times()}${digit()}`,
    () => `2^{${letter()}+${digit()}}=${number(64)}`,
    () => `\\sin ${greek()}=${fraction(letter(), letter())}`,
    () => `\\log_{${random.pick(['2', '3', '10'])}}${number(99)}=${digit()}`,
    () => `${fraction(number(), `${digit()}+${fraction(digit(), letter())}`)}`,
    () => `a^{m}\\cdot a^{n}=a^{m+n}`,
    () => `${letter()}\\pm ${number()}${relation()}${greek()}`,
    () => `${number(99)}\\%=${fraction(number(99), '100')}`,
  ];
  return random.pick(kinds)();
}
