import type { PartLook, TextPart } from '@doodla/core';
import type { MarkSpec, Mark as LetterMark } from 'prosemirror-model';
import { Node, Schema, Slice, Fragment } from 'prosemirror-model';

/** What letters can have of their own, with the markup that says so when text is brought in from elsewhere. */
const MARKUP = {
  bold: [
    { tag: 'b, strong', attrs: { value: true } },
    {
      style: 'font-weight',
      getAttrs: (weight: string) => /^(bold|[6-9]00)$/.test(weight) && { value: true },
    },
  ],
  italic: [
    { tag: 'i, em', attrs: { value: true } },
    { style: 'font-style=italic', attrs: { value: true } },
  ],
  underline: [
    { tag: 'u', attrs: { value: true } },
    { style: 'text-decoration=underline', attrs: { value: true } },
  ],
  colour: [],
  scale: [],
} as const;

export type LookKey = keyof typeof MARKUP;
const KEYS = Object.keys(MARKUP) as LookKey[];

/** Letters copied from here say by an attribute what they have of their own. */
function markSpec(key: LookKey): MarkSpec {
  const attribute = `data-${key}`;
  return {
    attrs: { value: {} },
    parseDOM: [
      {
        tag: `span[${attribute}]`,
        consuming: false,
        getAttrs: (span) => readValue(span.getAttribute(attribute)!),
      },
      ...MARKUP[key],
    ],
    toDOM: (mark) => ['span', { [attribute]: JSON.stringify(mark.attrs.value) }, 0],
  };
}

function readValue(json: string): { value: unknown } | false {
  try {
    return { value: JSON.parse(json) as unknown };
  } catch {
    // Somebody else's markup; the letters come in without it.
    return false;
  }
}

/** Lines of letters; a line ends where a new one was begun. */
export const schema = new Schema({
  nodes: {
    doc: { content: 'line+' },
    line: {
      content: 'text*',
      parseDOM: ['p', 'li', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'div', 'blockquote'].map((tag) => ({ tag })),
      toDOM: () => ['p', 0],
    },
    text: {},
  },
  marks: Object.fromEntries(KEYS.map((key) => [key, markSpec(key)])) as Record<LookKey, MarkSpec>,
});

/** What letters with these marks have of their own. */
export function lookOf(marks: readonly LetterMark[]): PartLook {
  return Object.fromEntries(marks.map((mark) => [mark.type.name, mark.attrs.value as unknown]));
}

/** A text as lines of letters. */
export function letterDoc(text: string, parts: readonly TextPart[] = []): Node {
  const lines: Node[] = [];
  let start = 0;
  for (const line of text.split('\n')) {
    lines.push(schema.nodes.line.create(null, lettersOf(line, start, parts)));
    start += line.length + 1;
  }
  return schema.nodes.doc.create(null, lines);
}

/** The letters of a line that begins at `start`, cut where their looks change. */
function lettersOf(line: string, start: number, parts: readonly TextPart[]): Node[] {
  const end = start + line.length;
  const cuts = parts.flatMap(({ from, to }) => [from, to]).filter((cut) => cut > start && cut < end);
  const edges = [...new Set([start, ...cuts, end])];
  return edges.slice(1).flatMap((to, i) => {
    const from = edges[i]!;
    if (from === to) return [];
    const part = parts.find((candidate) => candidate.from <= from && candidate.to >= to);
    const marks = KEYS.filter((key) => part?.[key] !== undefined).map((key) =>
      schema.marks[key].create({ value: part![key] }),
    );
    return [schema.text(line.slice(from - start, to - start), marks)];
  });
}

/** What was typed: its words, and the letters that have something of their own. */
export function typedIn(doc: Node): { text: string; parts: TextPart[] } {
  const parts: TextPart[] = [];
  let text = '';
  doc.forEach((line, _place, n) => {
    if (n > 0) text += '\n';
    line.forEach((letters) => {
      parts.push({ from: text.length, to: text.length + letters.nodeSize, ...lookOf(letters.marks) });
      text += letters.text!;
    });
  });
  return { text, parts };
}

/** Plain text from elsewhere as lines that go where the cursor is, looking like what is there. */
export function pastedLines(text: string, marks: readonly LetterMark[]): Slice {
  const lines = text
    .split(/\r\n?|\n/)
    .map((line) => schema.nodes.line.create(null, line === '' ? [] : [schema.text(line, marks)]));
  return new Slice(Fragment.from(lines), 1, 1);
}
