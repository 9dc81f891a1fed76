import type { TextPart, TextStyle } from './textMark.js';

/** What a part has of its own. */
export type PartLook = Omit<TextPart, 'from' | 'to'>;

const KEYS = ['bold', 'italic', 'underline', 'colour', 'scale'] as const;

/**
 * Parts that look the same in as few words as possible: inside of a text of `length` units, without
 * what the text's style says anyway, and neighbours that look alike as one.
 */
export function tidyParts(parts: readonly TextPart[], style: TextStyle, length: number): TextPart[] {
  const plain: Required<PartLook> = { ...style, scale: 1 };
  const tidy: TextPart[] = [];
  for (const part of parts) {
    const [from, to] = [part.from, Math.min(part.to, length)];
    const own = KEYS.filter((key) => part[key] !== undefined && part[key] !== plain[key]);
    if (from >= to || own.length === 0) continue;
    const look: PartLook = Object.fromEntries(own.map((key) => [key, part[key]]));
    const last = tidy.at(-1);
    if (last?.to === from && KEYS.every((key) => last[key] === look[key])) last.to = to;
    else tidy.push({ from, to, ...look });
  }
  return tidy;
}

/** The parts of a text that is given something of a style as a whole: they no longer differ in that. */
export function partsUnder(parts: readonly TextPart[], style: object): TextPart[] {
  return parts
    .map(
      (part) =>
        Object.fromEntries(Object.entries(part).filter(([key]) => !(key in style))) as unknown as TextPart,
    )
    .filter((part) => KEYS.some((key) => key in part));
}
