import type { PDFDict, PDFObject } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict as Dict, PDFHexString, PDFName, PDFNumber, PDFString } from '@cantoo/pdf-lib';

/** Fields of an annotation (ISO 32000-1 §12.5) as plain values; undefined where they are missing or broken. */
export class AnnotationFields {
  constructor(private readonly dict: PDFDict) {}

  name(key: string): string | undefined {
    const value = this.dict.lookup(PDFName.of(key));
    return value instanceof PDFName ? value.decodeText() : undefined;
  }

  text(key: string): string {
    const value = this.dict.lookup(PDFName.of(key));
    return value instanceof PDFString || value instanceof PDFHexString ? value.decodeText() : '';
  }

  number(key: string): number | undefined {
    return numberOf(this.dict.lookup(PDFName.of(key)));
  }

  numbers(key: string): number[] | undefined {
    return numbersOf(this.dict.lookup(PDFName.of(key)));
  }

  /** Lists of numbers, one within another. */
  lists(key: string): number[][] {
    const value = this.dict.lookup(PDFName.of(key));
    if (!(value instanceof PDFArray)) return [];
    return Array.from({ length: value.size() }, (_, i) => numbersOf(value.lookup(i)) ?? []);
  }

  names(key: string): string[] {
    const value = this.dict.lookup(PDFName.of(key));
    if (!(value instanceof PDFArray)) return [];
    return value.asArray().flatMap((each) => (each instanceof PDFName ? [each.decodeText()] : []));
  }

  /** A colour as #rrggbb; null where it is stated to be none (§12.5.2). */
  colour(key: string): string | null | undefined {
    const value = this.numbers(key);
    if (!value) return undefined;
    return value.length === 0 ? null : hexOf(value);
  }

  /** Width of the line, in the page's own space (§12.5.4). */
  get lineWidth(): number {
    const style = this.dict.lookup(PDFName.of('BS'));
    const own = style instanceof Dict ? numberOf(style.lookup(PDFName.of('W'))) : undefined;
    return own ?? this.numbers('Border')?.[2] ?? 1;
  }

  get isDashed(): boolean {
    const style = this.dict.lookup(PDFName.of('BS'));
    return style instanceof Dict && style.lookup(PDFName.of('S')) === PDFName.of('D');
  }

  /** Hidden, or not to be viewed (table 165). */
  get isUnseen(): boolean {
    return ((this.number('F') ?? 0) & (2 | 32)) !== 0;
  }
}

function numberOf(value: PDFObject | undefined): number | undefined {
  return value instanceof PDFNumber && Number.isFinite(value.asNumber()) ? value.asNumber() : undefined;
}

function numbersOf(value: PDFObject | undefined): number[] | undefined {
  if (!(value instanceof PDFArray)) return undefined;
  const numbers = Array.from({ length: value.size() }, (_, i) => numberOf(value.lookup(i)));
  return numbers.every((number) => number !== undefined) ? numbers : undefined;
}

/** Gray, RGB or CMYK components, 0 to 1, as #rrggbb; the simple conversion of §10.3.5. */
export function hexOf(components: readonly number[]): string {
  const [a = 0, b = 0, c = 0, d = 0] = components;
  const rgb =
    components.length === 4
      ? [a, b, c].map((part) => 1 - Math.min(1, part + d))
      : components.length === 3
        ? [a, b, c]
        : [a, a, a];
  const byte = (part: number) => Math.round(Math.min(1, Math.max(0, part)) * 255);
  return `#${rgb.map((part) => byte(part).toString(16).padStart(2, '0')).join('')}`;
}
