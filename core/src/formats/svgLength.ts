/** CSS units of length in pixels (CSS Values 4, §6.2). */
const PIXELS: Readonly<Record<string, number>> = {
  '': 1,
  px: 1,
  pt: 96 / 72,
  pc: 16,
  mm: 96 / 25.4,
  cm: 96 / 2.54,
  in: 96,
};

/** A length in pixels; undefined where none is said, or only a part of something. */
export function lengthOf(value: string | undefined): number | undefined {
  const found = /^\s*([-+]?[\d.]+(?:e[-+]?\d+)?)\s*(px|pt|pc|mm|cm|in)?\s*(?:[,\s]|$)/i.exec(value ?? '');
  const number = found && Number(found[1]) * PIXELS[(found[2] ?? '').toLowerCase()]!;
  return number !== null && Number.isFinite(number) ? number : undefined;
}
