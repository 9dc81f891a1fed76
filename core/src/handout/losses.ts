import type { PDFDocument } from '@cantoo/pdf-lib';
import { PDFDict, PDFName, PDFNumber } from '@cantoo/pdf-lib';

/** What an original has and the handout has not. */
export type Loss =
  /** Its structure for screen readers. */
  | 'tags'
  /** Files in it. */
  | 'attachments'
  /** Fields that could be filled in. */
  | 'fields'
  /** A signature, which holds for the original alone. */
  | 'signature'
  /** What its owner does not allow. */
  | 'restrictions'
  /** Programs that run when it is opened. */
  | 'scripts'
  /** Everything but its looks, where it is too broken to be taken over. */
  | 'everything';

const name = (text: string) => PDFName.of(text);
/** Permissions to print, change, copy, annotate and assemble (ISO 32000-1 table 22), bits from 1. */
const PERMISSIONS = [3, 4, 5, 6, 11].reduce((bits, bit) => bits | (1 << (bit - 1)), 0);

/** Whether a document did not allow all that is done with a handout before it was decrypted. */
export function isRestricted({ context }: PDFDocument): boolean {
  return context.enumerateIndirectObjects().some(([, object]) => {
    // What said how it was encrypted (table 21) is still among its objects.
    if (!(object instanceof PDFDict) || object.get(name('Filter')) !== name('Standard')) return false;
    const permissions = object.lookup(name('P'));
    return permissions instanceof PDFNumber && (permissions.asNumber() & PERMISSIONS) !== PERMISSIONS;
  });
}

/** What is lost where only some pages of a document are taken. */
export function lossesOfParts(doc: PDFDocument): Loss[] {
  const losses: Loss[] = [];
  if (doc.catalog.has(name('StructTreeRoot'))) losses.push('tags');
  const names = doc.catalog.lookup(name('Names'));
  if (names instanceof PDFDict && names.has(name('EmbeddedFiles'))) losses.push('attachments');
  return losses;
}

/** Whether a document is signed (§12.8, SigFlags of table 218). */
export function isSigned(doc: PDFDocument): boolean {
  const flags = formOf(doc)?.lookup(name('SigFlags'));
  return flags instanceof PDFNumber && (flags.asNumber() & 1) !== 0;
}

export function formOf(doc: PDFDocument): PDFDict | undefined {
  const form = doc.catalog.lookup(name('AcroForm'));
  return form instanceof PDFDict ? form : undefined;
}
