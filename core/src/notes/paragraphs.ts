import type { Node } from 'prosemirror-model';
import type { TextPart } from '../marks/text/textMark.js';
import { notesSchema } from './notesSchema.js';

/** Words in a row, set in one size. */
export interface Paragraph {
  text: string;
  /** Letters that look unlike the rest. */
  parts: readonly TextPart[];
  look: 'title' | 'heading' | 'plain' | 'small';
  /** How many lists it lies in. */
  indent: number;
  /** What stands before it in a list. */
  lead: string;
}

/** A paragraph that is set plainly. */
export const plain = (text: string, look: Paragraph['look'] = 'plain'): Paragraph => ({
  text,
  parts: [],
  look,
  indent: 0,
  lead: '',
});

/** What notes say, paragraph by paragraph. Throws RangeError where these are no notes. */
export function paragraphsOf(doc: object): Paragraph[] {
  const all: Paragraph[] = [];
  walk(notesSchema.nodeFromJSON(doc), 0, '', all);
  return all;
}

function walk(node: Node, indent: number, lead: string, all: Paragraph[]): void {
  const { name } = node.type;
  if (name === 'paragraph' || name === 'heading') {
    const look = name === 'heading' && node.attrs.level === 1 ? 'heading' : 'plain';
    const isBold = name === 'heading' && look === 'plain';
    const text = node.textContent;
    const whole = isBold && text !== '' ? [{ from: 0, to: text.length, bold: true }] : partsOf(node);
    all.push({ text, parts: whole, look, indent, lead });
    return;
  }
  const isList = name === 'bullet_list' || name === 'ordered_list';
  node.forEach((child, _, i) => {
    const first = name === 'ordered_list' ? `${i + 1}.` : '•';
    if (isList) walk(child, indent + 1, first, all);
    else walk(child, indent, name === 'list_item' && i === 0 ? lead : '', all);
  });
}

function partsOf(paragraph: Node): TextPart[] {
  const parts: TextPart[] = [];
  let at = 0;
  paragraph.forEach((letters) => {
    const has = (mark: string) => letters.marks.some(({ type }) => type.name === mark);
    const [bold, italic, underline] = [has('strong'), has('em'), has('underline')];
    const to = at + letters.nodeSize;
    if (bold || italic || underline)
      parts.push({
        from: at,
        to,
        ...(bold && { bold }),
        ...(italic && { italic }),
        ...(underline && { underline }),
      });
    at = to;
  });
  return parts;
}
