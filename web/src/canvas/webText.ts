import type { PlacedQuote, PlacedWord, TextQuote } from '@doodla/core';
import { findQuote, MAX_QUOTE, quoteOf } from '@doodla/core';

/** The text of a web page as one string, and where each part of it is. */
export class WebText {
  private readonly nodes: Text[] = [];
  private readonly starts: number[] = [];
  readonly text: string;
  /** Where a paragraph, a cell or a line begins, so that words end there although nothing stands between them. */
  private readonly breaks = new Set<number>();

  constructor(private readonly page: Document) {
    const walker = page.createTreeWalker(page.body, NodeFilter.SHOW_TEXT);
    let text = '';
    let block: Element | undefined;
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      this.nodes.push(node as Text);
      this.starts.push(text.length);
      const own = blockOf(node as Text);
      if (own !== block || isAfterBreak(node)) this.breaks.add(text.length);
      block = own;
      text += (node as Text).data;
    }
    this.text = text;
  }

  /** The words between two places, whole ones; undefined where there are none. */
  between(a: { x: number; y: number }, b: { x: number; y: number }): PlacedQuote | undefined {
    const [from, to] = [this.positionAt(a), this.positionAt(b)].sort((p, q) => (p ?? 0) - (q ?? 0));
    if (from === undefined || to === undefined) return undefined;
    let [start, end] = [from, Math.min(to, from + MAX_QUOTE)];
    while (start > 0 && this.isInWord(start)) start -= 1;
    while (end < this.text.length && !(end > from && this.breaks.has(end)) && /\S/.test(this.text[end]!))
      end += 1;
    if (this.text.slice(start, end).trim() === '') return undefined;
    return this.placed(quoteOf(this.text, start, end));
  }

  /** Finds words again; undefined where they are gone. */
  find(quote: TextQuote): PlacedQuote | undefined {
    const found = findQuote(this.text, quote);
    return found && this.placed(quoteOf(this.text, found.start, found.end));
  }

  /** The first `most` of its words, in their order, and where they lie. */
  placedWords(most: number): PlacedWord[] {
    const words: PlacedWord[] = [];
    for (const { 0: run, index } of this.text.matchAll(/\S+/g)) {
      if (words.length >= most) break;
      for (const [start, end] of this.splitAtBreaks(index, index + run.length)) {
        const [x, y, width, height] = this.rectsOf(start, end);
        // What is not shown has no place.
        if (x !== undefined)
          words.push({ text: this.text.slice(start, end), x, y: y!, width: width!, height: height! });
      }
    }
    return words;
  }

  /** Parts of a stretch without spaces, where a paragraph or a cell ends within it. */
  private splitAtBreaks(start: number, end: number): [number, number][] {
    const cuts = [start];
    for (let at = start + 1; at < end; at++) if (this.breaks.has(at)) cuts.push(at);
    return cuts.map((cut, i) => [cut, cuts[i + 1] ?? end]);
  }

  /** Whether what stands before a place belongs to the same word. */
  private isInWord(place: number): boolean {
    return !this.breaks.has(place) && /\S/.test(this.text[place - 1]!);
  }

  private placed(quote: TextQuote): PlacedQuote | undefined {
    const rects = this.rectsOf(quote.start, quote.start + quote.exact.length);
    return rects.length > 0 ? { ...quote, rects } : undefined;
  }

  /** A stretch of the text as a range of the document, which goes along as that changes. */
  rangeOf(start: number, end: number): Range {
    const range = this.page.createRange();
    const [from, to] = [this.nodeAt(start), this.nodeAt(end - 1)];
    range.setStart(from.node, from.offset);
    range.setEnd(to.node, to.offset + 1);
    return range;
  }

  /** Flat x, y, width, height of each line of a stretch of the text. */
  private rectsOf(start: number, end: number): number[] {
    return linesOf(this.rangeOf(start, end));
  }

  private nodeAt(position: number): { node: Text; offset: number } {
    let n = this.starts.findLastIndex((start) => start <= position);
    n = Math.max(0, n);
    return { node: this.nodes[n]!, offset: position - this.starts[n]! };
  }

  private positionAt({ x, y }: { x: number; y: number }): number | undefined {
    const at = caretAt(this.page, x, y);
    const n = at ? this.nodes.indexOf(at.node as Text) : -1;
    return n < 0 ? undefined : this.starts[n]! + at!.offset;
  }
}

/** The paragraph, cell or the like that a text stands in. */
function blockOf(text: Text): Element | undefined {
  let element = text.parentElement;
  const view = text.ownerDocument.defaultView;
  while (element?.parentElement && view?.getComputedStyle(element).display.startsWith('inline'))
    element = element.parentElement;
  return element ?? undefined;
}

const isAfterBreak = (node: Node) => (node.previousSibling as Element | null)?.tagName === 'BR';

/** Where a caret would be; browsers name the way to ask differently (CSSOM View §5). */
function caretAt(page: Document, x: number, y: number): { node: Node; offset: number } | undefined {
  const { caretPositionFromPoint, caretRangeFromPoint } = page as unknown as {
    caretPositionFromPoint?(x: number, y: number): { offsetNode: Node; offset: number } | null;
    caretRangeFromPoint?(x: number, y: number): Range | null;
  };
  const position = caretPositionFromPoint?.call(page, x, y);
  if (position) return { node: position.offsetNode, offset: position.offset };
  const range = caretRangeFromPoint?.call(page, x, y);
  return range ? { node: range.startContainer, offset: range.startOffset } : undefined;
}

/** Where the lines of a range lie in its document's window: flat x, y, width, height, rectangles of one line as one. */
export function linesOf(range: Range): number[] {
  const merged: { x: number; y: number; right: number; bottom: number }[] = [];
  for (const { left, top, right, bottom, width } of range.getClientRects()) {
    if (width < 0.5) continue;
    const last = merged.at(-1);
    const sameLine = last && Math.abs((last.y + last.bottom) / 2 - (top + bottom) / 2) < (bottom - top) / 2;
    if (!sameLine) merged.push({ x: left, y: top, right, bottom });
    else {
      last.x = Math.min(last.x, left);
      last.y = Math.min(last.y, top);
      last.right = Math.max(last.right, right);
      last.bottom = Math.max(last.bottom, bottom);
    }
  }
  const round = (value: number) => Math.round(value * 100) / 100;
  return merged.flatMap(({ x, y, right, bottom }) => [x, y, right - x, bottom - y].map(round));
}
