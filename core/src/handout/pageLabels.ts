import type { PDFDocument, PDFObject } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict, PDFHexString, PDFName, PDFNumber, PDFString } from '@cantoo/pdf-lib';

/** How a page is numbered: by a style, after some letters. */
export interface PageLabel {
  style: PDFObject | undefined;
  prefix: string;
  number: number;
}

/** Most entries of a tree that are read; a broken file may lead round in circles. */
const MOST = 100_000;
const name = (text: string) => PDFName.of(text);

/** The labels of a document's pages, by index (ISO 32000-1 §12.4.2); undefined where it has none. */
export function labelsOf(doc: PDFDocument): ((index: number) => PageLabel | undefined) | undefined {
  const ranges = rangesOf(doc.catalog.lookup(name('PageLabels')));
  if (ranges.length === 0) return undefined;
  return (index) => {
    const range = ranges.findLast(({ from }) => from <= index);
    return range && { ...range.label, number: range.label.number + index - range.from };
  };
}

/** Numbers the pages of a document anew; those without a label by their place. */
export function writeLabels(doc: PDFDocument, labels: readonly (PageLabel | undefined)[]): void {
  const { context } = doc;
  const entries = PDFArray.withContext(context);
  labels.forEach((label, i) => {
    const own = label ?? byPlace(i);
    const before = i > 0 ? (labels[i - 1] ?? byPlace(i - 1)) : undefined;
    if (before && follows(own, before)) return;
    const range = context.obj({ St: own.number });
    if (own.style) range.set(name('S'), own.style);
    if (own.prefix !== '') range.set(name('P'), PDFHexString.fromText(own.prefix));
    entries.push(PDFNumber.of(i));
    entries.push(range);
  });
  doc.catalog.set(name('PageLabels'), context.obj({ Nums: entries }));
}

function byPlace(index: number): PageLabel {
  return { style: name('D'), prefix: '', number: index + 1 };
}

function follows(label: PageLabel, before: PageLabel): boolean {
  return label.style === before.style && label.prefix === before.prefix && label.number === before.number + 1;
}

function rangesOf(root: PDFObject | undefined): { from: number; label: PageLabel }[] {
  const ranges: { from: number; label: PageLabel }[] = [];
  const waiting = [root];
  for (let read = 0; waiting.length > 0 && read < MOST; read++) {
    const node = waiting.pop();
    if (!(node instanceof PDFDict)) continue;
    const [kids, nums] = [node.lookup(name('Kids')), node.lookup(name('Nums'))];
    if (kids instanceof PDFArray) for (let i = 0; i < kids.size(); i++) waiting.push(kids.lookup(i));
    if (!(nums instanceof PDFArray)) continue;
    for (let i = 0; i + 1 < nums.size(); i += 2) {
      const [from, label] = [nums.lookup(i), nums.lookup(i + 1)];
      if (from instanceof PDFNumber && label instanceof PDFDict)
        ranges.push({ from: from.asNumber(), label: labelIn(label) });
    }
  }
  return ranges.sort((a, b) => a.from - b.from);
}

function labelIn(dict: PDFDict): PageLabel {
  const [prefix, start] = [dict.lookup(name('P')), dict.lookup(name('St'))];
  return {
    style: dict.lookup(name('S')),
    prefix: prefix instanceof PDFString || prefix instanceof PDFHexString ? prefix.decodeText() : '',
    number: start instanceof PDFNumber ? start.asNumber() : 1,
  };
}
