import type { PDFDict, PDFObject } from '@cantoo/pdf-lib';
import {
  PDFArray,
  PDFDict as Dict,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFStream,
  PDFString,
} from '@cantoo/pdf-lib';
import type { Matrix } from '../geometry/matrix.js';
import { IDENTITY } from '../geometry/matrix.js';

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

  /** The box of the normal appearance, and how it is mapped (§8.10.2); undefined where there is none. */
  get appearance(): { box: [number, number, number, number]; matrix: Matrix } | undefined {
    const looks = this.dict.lookup(PDFName.of('AP'));
    const look = looks instanceof Dict ? looks.lookup(PDFName.of('N')) : undefined;
    if (!(look instanceof PDFStream)) return undefined;
    const box = numbersOf(look.dict.lookup(PDFName.of('BBox')));
    const matrix = numbersOf(look.dict.lookup(PDFName.of('Matrix'))) ?? IDENTITY;
    if (box?.length !== 4 || matrix.length !== 6) return undefined;
    return { box: box as [number, number, number, number], matrix: matrix as unknown as Matrix };
  }

  /** When it was made or else changed, ms since 1970 (§7.9.4); undefined where that is not said. */
  get madeAt(): number | undefined {
    for (const key of ['CreationDate', 'M']) {
      const value = this.dict.lookup(PDFName.of(key));
      const at = value instanceof PDFString || value instanceof PDFHexString ? dateIn(value) : undefined;
      if (at !== undefined) return at;
    }
    return undefined;
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

function dateIn(value: PDFString | PDFHexString): number | undefined {
  try {
    const at = value.decodeDate().getTime();
    return Number.isFinite(at) && at > 0 ? at : undefined;
  } catch {
    // Not a date as the standard has it.
    return undefined;
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
