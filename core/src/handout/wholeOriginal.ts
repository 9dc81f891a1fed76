import type { PDFDocument, PDFObject } from '@cantoo/pdf-lib';
import { PDFDict, PDFName } from '@cantoo/pdf-lib';
import type { Loss } from './losses.js';
import { isSigned } from './losses.js';

const name = (text: string) => PDFName.of(text);
/** Actions that only lead somewhere (ISO 32000-1 table 198). */
const LEADS = new Set(['GoTo', 'URI', 'Named'].map(name));

/** Takes out of a document, all of which is to be handed out, what should not go on with it. */
export function prepareWhole(doc: PDFDocument, onLoss: (loss: Loss) => void): void {
  if (isSigned(doc)) onLoss('signature');
  if (dropScripts(doc)) onLoss('scripts');
}

/** Drops what runs by itself when a document is opened, closed, printed or turned; tells whether there was any. */
function dropScripts(doc: PDFDocument): boolean {
  const { catalog } = doc;
  const dropped = [catalog, ...doc.getPages().map(({ node }) => node)].filter((dict) =>
    dict.delete(name('AA')),
  );
  const names = catalog.lookup(name('Names'));
  const had = names instanceof PDFDict && names.delete(name('JavaScript'));
  if (!runs(catalog.lookup(name('OpenAction')))) return had || dropped.length > 0;
  return catalog.delete(name('OpenAction'));
}

/** Whether an action does more than lead somewhere, or is followed by one that does. */
function runs(action: PDFObject | undefined): boolean {
  if (!(action instanceof PDFDict)) return false;
  return !LEADS.has(action.lookup(name('S')) as PDFName) || action.has(name('Next'));
}
