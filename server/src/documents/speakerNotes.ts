import { strFromU8, unzipSync } from 'fflate';
import type { DocumentKind } from './documentKind.js';
import type { XmlNode } from '@doodla/core/formats';
import { elementsNamed, parseXml, textIn } from '@doodla/core/formats';

/** Longest notes that are kept of one slide, characters. */
const MAX_LENGTH = 4000;
const MAX_PART = 20_000_000;

/** What the speaker wrote beside each slide, in the order of the slides; empty where the format has no such thing. */
export function speakerNotes(bytes: Uint8Array, kind: DocumentKind): string[] {
  try {
    if (kind === 'pptx') return slideNotes(bytes);
    if (kind === 'odp') return pageNotes(bytes);
  } catch {
    // A document without readable notes is shown without them.
  }
  return [];
}

/** Notes of an Office Open XML presentation (ECMA-376 part 1, §13.3.5), hidden slides left out. */
function slideNotes(bytes: Uint8Array): string[] {
  const parts = unzipSync(bytes, {
    filter: ({ name, originalSize }) =>
      originalSize < MAX_PART && /^ppt\/(presentation\.xml|_rels\/|slides\/|notesSlides\/)/.test(name),
  });
  const read = (name: string) => (parts[name] ? parseXml(strFromU8(parts[name])) : []);
  const targets = relations(read('ppt/_rels/presentation.xml.rels'));
  return elementsNamed('p:sldId', read('ppt/presentation.xml'))
    .flatMap(({ attributes }) => targets.get(attributes['r:id'] ?? '') ?? [])
    .map((target) => `ppt/${target}`)
    .filter((slide) => elementsNamed('p:sld', read(slide))[0]?.attributes['show'] !== '0')
    .map((slide) => {
      const beside = relations(read(slide.replace('slides/', 'slides/_rels/') + '.rels'));
      const notes = [...beside.values()].find((target) => target.includes('notesSlide'));
      return notes ? notesText(read(notes.replace('../', 'ppt/'))) : '';
    });
}

function relations(xml: readonly XmlNode[]): Map<string, string> {
  return new Map(
    elementsNamed('Relationship', xml).map(({ attributes }) => [
      attributes['Id'] ?? '',
      attributes['Target'] ?? '',
    ]),
  );
}

/** The words of the notes' body; the slide's number beside it is left out. */
function notesText(xml: readonly XmlNode[]): string {
  const body = elementsNamed('p:sp', xml).find(({ children }) =>
    elementsNamed('p:ph', children).some(({ attributes }) => attributes['type'] === 'body'),
  );
  const lines = elementsNamed('a:p', body?.children ?? []);
  return kept(lines.map(({ children }) => textIn(elementsNamed('a:t', children))));
}

/** Notes of an OpenDocument presentation (ODF 1.3 part 3, §10.3.8), hidden slides left out (§20.229). */
function pageNotes(bytes: Uint8Array): string[] {
  const parts = unzipSync(bytes, {
    filter: ({ name, originalSize }) => name === 'content.xml' && originalSize < MAX_PART,
  });
  const content = parts['content.xml'] ? parseXml(strFromU8(parts['content.xml'])) : [];
  const hidden = hiddenStyles(content);
  return elementsNamed('draw:page', content)
    .filter(({ attributes }) => !hidden.has(attributes['draw:style-name'] ?? ''))
    .map(({ children }) => {
      const notes = elementsNamed('presentation:notes', children).flatMap((note) => note.children);
      const lines = elementsNamed('text:p', notes);
      return kept(lines.map((line) => textIn(line.children, 'text:p')));
    });
}

/** Styles of pages that are not shown. */
function hiddenStyles(content: readonly XmlNode[]): Set<string> {
  const styles = elementsNamed('style:style', content).filter(({ children }) =>
    elementsNamed('style:drawing-page-properties', children).some(
      ({ attributes }) => attributes['presentation:visibility'] === 'hidden',
    ),
  );
  return new Set(styles.flatMap(({ attributes }) => attributes['style:name'] ?? []));
}

function kept(lines: readonly string[]): string {
  return lines.join('\n').trim().slice(0, MAX_LENGTH);
}
