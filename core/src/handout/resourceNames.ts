import type { PDFDocument, PDFFont, PDFImage, PDFRef } from '@cantoo/pdf-lib';
import { PDFDict, PDFName } from '@cantoo/pdf-lib';
import type { Blend } from '../paint/items.js';

const BLEND_MODES: Record<Blend, string> = { normal: 'Normal', multiply: 'Multiply' };

/** The graphics state of an opacity and a blend mode. */
export type GraphicsStates = (opacity: number, blend: Blend) => PDFRef;

/** Graphics states of a document (ISO 32000-1 table 58, entries CA, ca and BM), each of them once. */
export function graphicsStates({ context }: PDFDocument): GraphicsStates {
  const known = { normal: new Map<number, PDFRef>(), multiply: new Map<number, PDFRef>() };
  return (opacity, blend) => {
    let ref = known[blend].get(opacity);
    if (!ref) {
      const state = { Type: 'ExtGState', CA: opacity, ca: opacity, BM: BLEND_MODES[blend] };
      known[blend].set(opacity, (ref = context.register(context.obj(state))));
    }
    return ref;
  };
}

/** What fonts, pictures and graphics states are called in the resources of a page or form (§7.8.3). */
export class ResourceNames {
  private readonly names = new Map<unknown, string>();

  constructor(
    private readonly resources: PDFDict,
    private readonly states: GraphicsStates,
  ) {}

  font(font: PDFFont): string {
    return this.named(font, 'Font', font.name, font.ref);
  }

  image(image: PDFImage): string {
    return this.named(image, 'XObject', 'Picture', image.ref);
  }

  state(opacity: number, blend: Blend): string {
    const state = this.states(opacity, blend);
    return this.named(state, 'ExtGState', 'Ink', state);
  }

  private named(key: unknown, category: string, tag: string, ref: PDFRef): string {
    let name = this.names.get(key);
    if (name === undefined) {
      const entry = this.category(category);
      const unique = entry.uniqueKey(tag);
      entry.set(unique, ref);
      this.names.set(key, (name = String(unique)));
    }
    return name;
  }

  private category(category: string): PDFDict {
    const known = this.resources.lookup(PDFName.of(category));
    if (known instanceof PDFDict) return known;
    const made = PDFDict.withContext(this.resources.context);
    this.resources.set(PDFName.of(category), made);
    return made;
  }
}
