import { toWebAnnotation } from '../annotation/webAnnotation.js';
import { svgMark } from '../formats/svgMarks.js';
import { decimal, element } from '../formats/xml.js';
import { markBounds } from '../marks/bounds.js';
import type { Mark } from '../marks/mark.js';
import type { Glue } from './glue.js';
import type { GluedMark } from './gluedMark.js';
import { keptOf } from './gluedMark.js';

/** How the body is written that holds a whole mark, so that Doodla can read it again without loss. */
export const MARK_FORMAT = 'application/json';
const CONTEXT = 'http://www.w3.org/ns/anno.jsonld';

/**
 * What is marked on the page of an address as Web Annotations (W3C Web Annotation Data Model, 2017): words by what they say
 * (§4.2.4, §4.2.5), elements by a CSS selector (§4.2.2), refined (§4.2.9) by an area that is a drawing of the mark (§4.2.8).
 */
export function pageAnnotations(marks: readonly GluedMark[], source: string, title: string): string {
  const items = marks.map((glued) => annotationOf(glued, source));
  const collection = {
    '@context': CONTEXT,
    id: 'urn:doodla:annotations',
    type: 'AnnotationCollection',
    label: title,
    total: items.length,
    first: { id: 'urn:doodla:annotations:1', type: 'AnnotationPage', startIndex: 0, items },
  };
  return JSON.stringify(collection, undefined, 2);
}

function annotationOf(glued: GluedMark, source: string) {
  const { mark, glue } = glued;
  const whole = { type: 'TextualBody', format: MARK_FORMAT, value: JSON.stringify(keptOf(glued)) };
  const words = 'text' in mark ? mark.text : (mark.alt ?? '');
  const said = words === '' ? [] : [{ type: 'TextualBody', value: words, format: 'text/plain' }];
  const base = mark.kind === 'quote' ? toWebAnnotation(mark, source) : drawn(mark, glue, source);
  return { ...base, ...creatorOf(mark), body: [...said, whole] };
}

const creatorOf = ({ credit }: Mark) =>
  credit === undefined ? {} : { creator: { type: 'Person', name: credit } };

function drawn(mark: Mark, glue: Glue, source: string) {
  const area = { type: 'SvgSelector', value: areaOf(mark) };
  return {
    '@context': CONTEXT,
    id: `urn:doodla:mark:${mark.id}`,
    type: 'Annotation',
    motivation: 'text' in mark ? 'commenting' : 'highlighting',
    created: new Date(mark.createdAt).toISOString(),
    target: { source, selector: selectorOf(glue, area) },
  };
}

function selectorOf(glue: Glue, area: object) {
  if (glue.to === 'page') return area;
  if (glue.to === 'element') return { type: 'CssSelector', value: glue.name.css, refinedBy: area };
  const { exact, prefix, suffix, start } = glue.quote;
  return [
    { type: 'TextQuoteSelector', exact, prefix, suffix, refinedBy: area },
    { type: 'TextPositionSelector', start, end: start + exact.length, refinedBy: area },
  ];
}

function areaOf(mark: Mark): string {
  const { x, y, width, height } = markBounds(mark);
  return element(
    'svg',
    { xmlns: 'http://www.w3.org/2000/svg', viewBox: [x, y, width, height].map(decimal).join(' ') },
    svgMark(mark, '', () => undefined) || element('rect', { x, y, width, height }),
  );
}
