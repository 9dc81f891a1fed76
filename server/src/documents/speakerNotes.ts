import { strFromU8, unzipSync } from 'fflate';
import type { DocumentKind } from './documentKind.js';

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
  const text = (name: string) => (parts[name] ? strFromU8(parts[name]) : '');
  const targets = relations(text('ppt/_rels/presentation.xml.rels'));
  const slides = [...text('ppt/presentation.xml').matchAll(/<p:sldId [^<>]*r:id="([^"<>]+)"/g)].flatMap(
    ([, id]) => targets.get(id!) ?? [],
  );
  return slides
    .map((target) => `ppt/${target}`)
    .filter((slide) => !/<p:sld [^<>]*show="0"/.test(text(slide)))
    .map((slide) => {
      const rels = relations(text(slide.replace('slides/', 'slides/_rels/') + '.rels'));
      const notes = [...rels.values()].find((target) => target.includes('notesSlide'));
      return notes ? notesText(text(notes.replace('../', 'ppt/'))) : '';
    });
}

function relations(xml: string): Map<string, string> {
  const found = new Map<string, string>();
  for (const [tag] of xml.matchAll(/<Relationship [^<>]*>/g)) {
    const id = /Id="([^"]+)"/.exec(tag)?.[1];
    const target = /Target="([^"]+)"/.exec(tag)?.[1];
    if (id !== undefined && target !== undefined) found.set(id, target);
  }
  return found;
}

/** The words of the notes' body; the slide's number beside it is left out. */
function notesText(xml: string): string {
  const body = xml.split('<p:sp>').find((shape) => shape.includes('type="body"')) ?? '';
  const lines = body
    .split('</a:p>')
    .map((line) => [...line.matchAll(/<a:t>([^<]*)<\/a:t>/g)].map(([, t]) => t).join(''));
  return plain(lines);
}

/** Notes of an OpenDocument presentation (ODF 1.3 part 3, §10.3.8), hidden slides left out (§20.229). */
function pageNotes(bytes: Uint8Array): string[] {
  const parts = unzipSync(bytes, {
    filter: ({ name, originalSize }) => name === 'content.xml' && originalSize < MAX_PART,
  });
  const content = parts['content.xml'] ? strFromU8(parts['content.xml']) : '';
  const hidden = hiddenStyles(content);
  return content
    .split('<draw:page ')
    .slice(1)
    .filter((page) => !hidden.has(/draw:style-name="([^"<>]*)"/.exec(page)?.[1] ?? ''))
    .map((page) => {
      const [, notes = ''] = page.split('<presentation:notes');
      const [own = ''] = notes.split('</presentation:notes>');
      const paragraphs = own.split('</text:p>').slice(0, -1);
      return plain(paragraphs.map(lastParagraph));
    });
}

/** Styles of pages that are not shown. */
function hiddenStyles(content: string): Set<string> {
  const hidden = new Set<string>();
  for (const style of content.split('<style:style ').slice(1)) {
    const [own = ''] = style.split('</style:style>');
    const name = /style:name="([^"<>]*)"/.exec(own)?.[1];
    if (name !== undefined && own.includes('presentation:visibility="hidden"')) hidden.add(name);
  }
  return hidden;
}

/** The words after the last beginning of a paragraph. */
function lastParagraph(xml: string): string {
  const start = Math.max(xml.lastIndexOf('<text:p '), xml.lastIndexOf('<text:p>'));
  return start < 0 ? '' : xml.slice(start).replace(/<[^<>]+>/g, '');
}

function plain(lines: readonly string[]): string {
  const entities: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };
  return lines
    .join('\n')
    .replace(/&(amp|lt|gt|quot|apos);/g, (_, name: string) => entities[name]!)
    .trim()
    .slice(0, MAX_LENGTH);
}
