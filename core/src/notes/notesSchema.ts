import { Schema } from 'prosemirror-model';

/** What a class's notes are made of: headings, paragraphs and lists of plain, strong, slanted or underlined letters. */
export const notesSchema = new Schema({
  nodes: {
    doc: { content: 'block+' },
    paragraph: { group: 'block', content: 'text*', parseDOM: [{ tag: 'p' }], toDOM: () => ['p', 0] },
    heading: {
      group: 'block',
      content: 'text*',
      attrs: { level: { default: 1, validate: isLevel } },
      parseDOM: [1, 2].map((level) => ({ tag: `h${level + 1}`, attrs: { level } })),
      toDOM: ({ attrs }) => [`h${(attrs.level as number) + 1}`, 0],
    },
    bullet_list: {
      group: 'block',
      content: 'list_item+',
      parseDOM: [{ tag: 'ul' }],
      toDOM: () => ['ul', 0],
    },
    ordered_list: {
      group: 'block',
      content: 'list_item+',
      parseDOM: [{ tag: 'ol' }],
      toDOM: () => ['ol', 0],
    },
    list_item: { content: 'paragraph block*', parseDOM: [{ tag: 'li' }], toDOM: () => ['li', 0] },
    text: {},
  },
  marks: {
    strong: { parseDOM: [{ tag: 'strong' }, { tag: 'b' }], toDOM: () => ['strong', 0] },
    em: { parseDOM: [{ tag: 'em' }, { tag: 'i' }], toDOM: () => ['em', 0] },
    underline: { parseDOM: [{ tag: 'u' }], toDOM: () => ['u', 0] },
  },
});

function isLevel(value: unknown): void {
  if (value !== 1 && value !== 2) throw new RangeError('a heading is of level 1 or 2');
}
