import type { List, Nodes, RootContent } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import type { OutlineItem } from './outline.js';
import { checkedOutline } from './outline.js';

/** Signs that mean something in Markdown (CommonMark 0.31, 2.4). */
const SIGNS = /[\\`*_{}[\]()<>#+\-.!|~&]/g;

/** An idea as a heading, and what hangs on it as a list in a list, in CommonMark. */
export function writeMarkdown({ text, children }: OutlineItem): string {
  return `# ${escaped(text)}\n\n${children.map((child) => itemOf(child, 0)).join('')}`;
}

const escaped = (text: string) => text.replace(SIGNS, '\\$&');

const itemOf = ({ text, children }: OutlineItem, depth: number): string =>
  `${'  '.repeat(depth)}- ${escaped(text)}\n${children.map((child) => itemOf(child, depth + 1)).join('')}`;

/** Reads headings and lists of Markdown as an outline; paragraphs are ideas as well. Throws `OutlineError`. */
export function readMarkdown(markdown: string): OutlineItem[] {
  const top: OutlineItem[] = [];
  const open: { depth: number; item: OutlineItem }[] = [];
  for (const block of fromMarkdown(markdown).children) {
    if (block.type === 'heading') {
      while (open.length > 0 && open.at(-1)!.depth >= block.depth) open.pop();
      const item = { text: wordsIn(block), children: [] };
      (open.at(-1)?.item.children ?? top).push(item);
      open.push({ depth: block.depth, item });
    } else (open.at(-1)?.item.children ?? top).push(...itemsOf(block));
  }
  return checkedOutline(top);
}

function itemsOf(block: RootContent): OutlineItem[] {
  if (block.type === 'list') return itemsOfList(block);
  const text = wordsIn(block);
  return text.trim() === '' ? [] : [{ text, children: [] }];
}

const itemsOfList = ({ children }: List): OutlineItem[] =>
  children.map(({ children: blocks }) => {
    const [first, ...rest] = blocks;
    const hasWords = first !== undefined && first.type !== 'list';
    return { text: hasWords ? wordsIn(first) : '', children: (hasWords ? rest : blocks).flatMap(itemsOf) };
  });

function wordsIn(node: Nodes): string {
  if (node.type === 'break') return ' ';
  if ('value' in node) return node.value;
  return 'children' in node ? node.children.map(wordsIn).join('') : '';
}
