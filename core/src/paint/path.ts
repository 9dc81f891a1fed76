/** One step of a path in page units: move, line, quadratic curve, cubic curve, close. */
export type PathStep =
  | readonly ['M', number, number]
  | readonly ['L', number, number]
  | readonly ['Q', number, number, number, number]
  | readonly ['C', number, number, number, number, number, number]
  | readonly ['Z'];

export type Path = readonly PathStep[];

/** SVG path data (SVG 2 §9.3), coordinates rounded to `digits` decimals. */
export function toSvgPath(path: Path, digits = 2): string {
  const factor = 10 ** digits;
  const round = (value: number) => Math.round(value * factor) / factor;
  return path.map(([letter, ...numbers]) => letter + numbers.map(round).join(' ')).join('');
}
