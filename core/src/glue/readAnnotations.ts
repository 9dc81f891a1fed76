import { MAX_QUOTE } from '../annotation/textQuote.js';
import { isRecord } from '../checks/fields.js';
import { isHexColour } from '../colour/contrast.js';
import { isMark } from '../marks/check.js';
import type { SharedFields } from '../marks/shared.js';
import { addressOf } from './address.js';
import type { GluedMark } from './gluedMark.js';
import { readGlued } from './gluedMark.js';
import { MARK_FORMAT } from './pageAnnotations.js';

/** What a file of Web Annotations holds for a page. */
export interface ReadAnnotations {
  marks: GluedMark[];
  /** Annotations of other pages. */
  elsewhere: number;
  /** Annotations that say nothing by which their place can be found. */
  unread: number;
}

/** Most annotations that are read from one file. */
const MOST = 20_000;
/** The colour of words that somebody else's program has marked. */
const COLOUR = '#f0e442';
const CONTEXT_LETTERS = 100;

type Parts = Record<string, unknown>;

/**
 * Reads Web Annotations (W3C Web Annotation Data Model, 2017): a collection, a page of one, a list or a single one. Ours come back
 * as they were; of those of other programs, words that are quoted (§4.2.4) become marked words, with what is said of them.
 * `fresh` gives what each new mark needs. Throws SyntaxError where it is no JSON.
 */
export function readAnnotations(json: string, address: string, fresh: () => SharedFields): ReadAnnotations {
  const read: ReadAnnotations = { marks: [], elsewhere: 0, unread: 0 };
  for (const annotation of itemsOf(JSON.parse(json)).slice(0, MOST)) {
    if (!isAbout(annotation, address)) read.elsewhere += 1;
    else {
      const mark = ownMark(annotation) ?? quotedWords(annotation, fresh());
      if (mark) read.marks.push(mark);
      else read.unread += 1;
    }
  }
  return read;
}

/** A collection has its first page in itself, or as an address that is not followed (§5). */
function itemsOf(value: unknown): Parts[] {
  if (Array.isArray(value)) return value.filter(isRecord);
  if (!isRecord(value)) return [];
  if (isRecord(value.first)) return itemsOf(value.first);
  if (Array.isArray(value.items)) return itemsOf(value.items);
  return typesOf(value).includes('Annotation') ? [value] : [];
}

const typesOf = ({ type }: Parts): unknown[] => listOf(type);
const listOf = (value: unknown): unknown[] => (Array.isArray(value) ? value : [value]);

const targetsOf = ({ target }: Parts): unknown[] => listOf(target);

/** Where a target is: an address alone, or a part of what is at one (§4). */
function sourceOf(target: unknown): string | undefined {
  if (typeof target === 'string') return target;
  if (!isRecord(target)) return undefined;
  const { source, id } = target;
  const named = isRecord(source) ? source.id : (source ?? id);
  return typeof named === 'string' ? named : undefined;
}

function isAbout(annotation: Parts, address: string): boolean {
  return targetsOf(annotation).some((target) => {
    const source = sourceOf(target);
    return source !== undefined && URL.canParse(source) && addressOf(source) === addressOf(address);
  });
}

function ownMark({ body }: Parts): GluedMark | undefined {
  for (const part of listOf(body)) {
    if (!isRecord(part) || part.format !== MARK_FORMAT || typeof part.value !== 'string') continue;
    const mark = readGlued(parsed(part.value));
    if (mark) return mark;
  }
  return undefined;
}

function parsed(json: string): unknown {
  try {
    return JSON.parse(json);
  } catch {
    // Somebody else's JSON, which is looked at as any other body.
    return undefined;
  }
}

function quotedWords(annotation: Parts, shared: SharedFields): GluedMark | undefined {
  const selector = selectorsOf(annotation).find(({ type }) => type === 'TextQuoteSelector');
  if (typeof selector?.exact !== 'string' || selector.exact === '') return undefined;
  const position = selectorsOf(annotation).find(({ type }) => type === 'TextPositionSelector')?.start;
  const quote = {
    exact: selector.exact.slice(0, MAX_QUOTE),
    prefix: textOf(selector.prefix).slice(-CONTEXT_LETTERS),
    suffix: textOf(selector.suffix).slice(0, CONTEXT_LETTERS),
    start: typeof position === 'number' && position >= 0 ? position : 0,
  };
  const credit = creatorOf(annotation);
  const mark = {
    ...shared,
    ...quote,
    kind: 'quote' as const,
    look: 'highlight' as const,
    // Where they lie is known once they are found.
    rects: [0, 0, 1, 1],
    style: { colour: colourOf(annotation), opacity: 0.5 },
    alt: saidOf(annotation),
    createdAt: createdAt(annotation) ?? shared.createdAt,
    ...(credit !== undefined && { credit }),
  };
  const glue = { to: 'words', frames: [], quote, at: { x: 0, y: 0, width: 1, height: 1 } } as const;
  return isMark(mark) ? { mark, glue } : undefined;
}

function selectorsOf(annotation: Parts): Parts[] {
  return targetsOf(annotation)
    .filter(isRecord)
    .flatMap(({ selector }) => listOf(selector))
    .filter(isRecord);
}

const textOf = (value: unknown): string => (typeof value === 'string' ? value : '');

function creatorOf({ creator }: Parts): string | undefined {
  const [first] = listOf(creator);
  const name = isRecord(first) ? textOf(first.name) : '';
  return name === '' ? undefined : name.slice(0, 120);
}

/** A colour that its style sheet names in full (§4.4). */
function colourOf({ stylesheet }: Parts): string {
  const css = isRecord(stylesheet) ? textOf(stylesheet.value) : '';
  const named = /#[\da-f]{6}\b/i.exec(css)?.[0].toLowerCase();
  return isHexColour(named) ? named : COLOUR;
}

/** What is said of the words: bodies of text, and those that are given as their value alone (§3.2.3, §3.2.5). */
function saidOf({ body, bodyValue }: Parts): string | null {
  const texts = listOf(body).map((part) => (isRecord(part) ? textOf(part.value) : ''));
  const all = [...texts, textOf(bodyValue)].filter((text) => text !== '').join('\n');
  return all === '' ? null : all.slice(0, 1000);
}

function createdAt({ created }: Parts): number | undefined {
  const at = Date.parse(textOf(created));
  return Number.isNaN(at) || at < 0 ? undefined : at;
}
