import { strToU8 } from 'fflate';
import { toWebAnnotation } from '../annotation/webAnnotation.js';
import type { HandoutPage } from '../handout/sources.js';
import type { Mark } from '../marks/mark.js';
import { markBounds } from '../marks/bounds.js';
import { svgMark } from './svgMarks.js';
import { decimal, element } from './xml.js';

/** Where the original of a web page is; undefined for pages of other kinds. */
export type AddressOf = (material: string) => string | undefined;

/**
 * What is marked on web pages as W3C Web Annotations in a collection (Web Annotation Data Model, 2017): words by what they
 * say, all other marks by an area of the page (SvgSelector, §4.2.8) and a drawing.
 */
export function webAnnotationsFile(
  pages: readonly HandoutPage[],
  addressOf: AddressOf,
  { title, people = {} }: { title: string; people?: Readonly<Record<string, string>> },
): Uint8Array {
  const items = pages.flatMap(({ page, marks, alts = {} }) => {
    const source = page.surface.kind === 'web' ? addressOf(page.surface.material) : undefined;
    if (source === undefined) return [];
    return marks.map((mark) => {
      const name = mark.credit ?? people[mark.author];
      const creator = name ? { creator: { type: 'Person', name } } : {};
      const annotation =
        mark.kind === 'quote' ? toWebAnnotation(mark, source) : drawn(mark, source, alts[mark.id] ?? '');
      return { ...annotation, ...creator };
    });
  });
  const collection = {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    id: 'urn:doodla:annotations',
    type: 'AnnotationCollection',
    label: title,
    total: items.length,
    first: { id: 'urn:doodla:annotations:1', type: 'AnnotationPage', startIndex: 0, items },
  };
  return strToU8(JSON.stringify(collection, undefined, 2));
}

/** A mark that is not of words, at its place on the page as it was laid out. */
function drawn(mark: Mark, source: string, alt: string) {
  const { x, y, width, height } = markBounds(mark);
  const words = 'text' in mark ? mark.text : (mark.alt ?? alt);
  const shape = svgMark(mark, '', () => undefined);
  const svg = element(
    'svg',
    { xmlns: 'http://www.w3.org/2000/svg', viewBox: [x, y, width, height].map(decimal).join(' ') },
    shape || element('rect', { x, y, width, height }),
  );
  return {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    id: `urn:doodla:mark:${mark.id}`,
    type: 'Annotation',
    motivation: 'text' in mark ? 'commenting' : 'highlighting',
    created: new Date(mark.createdAt).toISOString(),
    ...(words !== '' && { body: { type: 'TextualBody', value: words, format: 'text/plain' } }),
    target: { source, selector: { type: 'SvgSelector', value: svg } },
  };
}
