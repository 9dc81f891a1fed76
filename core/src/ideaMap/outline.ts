/** An idea in words, with those that hang on it. */
export interface OutlineItem {
  text: string;
  children: OutlineItem[];
}

/** Most ideas of an outline, how deep it may be, and most letters of one idea. */
export const MOST_IDEAS = 1000;
export const MOST_DEPTH = 30;
export const MOST_LETTERS = 500;

/** Why an outline is none. */
export type OutlineFault = 'empty' | 'too-many' | 'not-opml';

/** Thrown where there is nothing to be read as an outline. */
export class OutlineError extends Error {
  override name = 'OutlineError';

  constructor(
    readonly fault: OutlineFault,
    options?: ErrorOptions,
  ) {
    super(fault, options);
  }
}

/** A tab is as wide as so many blanks. */
const TAB = 4;
/** Signs of lists in front of an idea. */
const SIGN = /^(?:[-*+•–]|\d+[.)])\s+/;

/** Reads what is typed or pasted: an idea to a line, further in what hangs on the one above. Throws `OutlineError`. */
export function readIndented(text: string): OutlineItem[] {
  const top: OutlineItem[] = [];
  const open: { indent: number; item: OutlineItem }[] = [];
  for (const line of text.split(/\r?\n/)) {
    const words = line.trim().replace(SIGN, '');
    if (words === '') continue;
    const indent = indentOf(line);
    while (open.length > 0 && open.at(-1)!.indent >= indent) open.pop();
    const item: OutlineItem = { text: words, children: [] };
    (open.at(-1)?.item.children ?? top).push(item);
    open.push({ indent, item });
  }
  return checkedOutline(top);
}

function indentOf(line: string): number {
  const blanks = /^[ \t]*/.exec(line)![0];
  return [...blanks].reduce((sum, sign) => sum + (sign === '\t' ? TAB : 1), 0);
}

/** An outline whose ideas are no longer and no deeper than can be drawn. Throws `OutlineError` where there is none, or too many. */
export function checkedOutline(items: readonly OutlineItem[]): OutlineItem[] {
  let count = 0;
  const within = (item: OutlineItem, depth: number): OutlineItem[] => {
    count += 1;
    if (count > MOST_IDEAS) throw new OutlineError('too-many');
    const text = item.text.replace(/\s+/g, ' ').trim().slice(0, MOST_LETTERS);
    const children = item.children.flatMap((child) => within(child, depth + 1));
    // What is deeper than can be drawn hangs on the deepest that can be.
    return depth < MOST_DEPTH ? [{ text, children }] : [{ text, children: [] }, ...children];
  };
  const checked = items.flatMap((item) => within(item, 0));
  if (checked.length === 0) throw new OutlineError('empty');
  return checked;
}

/** One idea in the middle: the only one at the top, or a title above all. */
export function rootedOutline(items: readonly OutlineItem[], title: string): OutlineItem {
  const [only, ...others] = items;
  return only && others.length === 0 ? only : { text: title, children: [...items] };
}
