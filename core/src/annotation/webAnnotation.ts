import type { MarkOf } from '../marks/mark.js';

/** A Web Annotation as JSON-LD (W3C Web Annotation Data Model, 2017). */
export interface WebAnnotation {
  '@context': 'http://www.w3.org/ns/anno.jsonld';
  id: string;
  type: 'Annotation';
  motivation: 'highlighting';
  created: string;
  body?: { type: 'TextualBody'; value: string; format: 'text/plain' };
  stylesheet: { type: 'CssStylesheet'; value: string };
  target: {
    source: string;
    styleClass: string;
    selector: (
      | { type: 'TextQuoteSelector'; exact: string; prefix: string; suffix: string }
      | { type: 'TextPositionSelector'; start: number; end: number }
    )[];
  };
}

/** Marked words of a web page as an annotation of the page at `source`. */
export function toWebAnnotation(mark: MarkOf<'quote'>, source: string): WebAnnotation {
  const { exact, prefix, suffix, start, look, style } = mark;
  const css =
    look === 'highlight'
      ? `.marked { background: ${style.colour}; }`
      : `.marked { text-decoration: underline ${style.colour}; }`;
  return {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    id: `urn:doodla:mark:${mark.id}`,
    type: 'Annotation',
    motivation: 'highlighting',
    created: new Date(mark.createdAt).toISOString(),
    ...(mark.alt !== null && { body: { type: 'TextualBody', value: mark.alt, format: 'text/plain' } }),
    stylesheet: { type: 'CssStylesheet', value: css },
    target: {
      source,
      styleClass: 'marked',
      selector: [
        { type: 'TextQuoteSelector', exact, prefix, suffix },
        { type: 'TextPositionSelector', start, end: start + exact.length },
      ],
    },
  };
}
