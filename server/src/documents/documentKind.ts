import { strFromU8, unzipSync } from 'fflate';
import { Problem } from '../http/problem.js';
import { decodeText } from './textEncoding.js';

/** Kinds of documents that can be taken in, and the ending that the converter knows them by. */
export type DocumentKind = 'pdf' | 'pptx' | 'ppt' | 'odp' | 'docx' | 'doc' | 'odt' | 'rtf' | 'md' | 'txt';

/** Most that a packed document may unfold to, bytes, and the most parts it may have. */
const MAX_UNPACKED = 1_000_000_000;
const MAX_PARTS = 20_000;
/** Packed parts larger than this do not shrink a hundredfold unless somebody means harm. */
const SUSPECT_BYTES = 50_000_000;
const SUSPECT_RATIO = 200;

/** Compound files (older office formats), by their first bytes ([MS-CFB] §2.2). */
const COMPOUND = [0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1];

/** The name of the part that holds an encrypted document, as compound files write names. */
const ENCRYPTED_PART = Buffer.from('EncryptedPackage', 'utf16le');

const UNKNOWN = new Problem(
  415,
  'unknown-document',
  'This file cannot be taken in. Please choose a PDF, slides (.pptx, .ppt, .odp), a text (.docx, .doc, .odt, .rtf, .md, .txt), or save it as PDF first.',
);

/**
 * What a file is, by its content; its name only tells texts and older formats apart. Throws Problem
 * where it is nothing that can be taken in, or a packed file that unfolds to far more than it should. Ours, not file-type:
 * a PDF may begin within its first 1,024 bytes (ISO 32000-1 annex H.3), and what a packed file unfolds to and whether it is
 * locked is in the same list that tells its kind.
 */
export function documentKind(bytes: Uint8Array, name: string): DocumentKind {
  const ending = /\.(\w+)$/.exec(name.toLowerCase())?.[1] ?? '';
  if (strFromU8(bytes.subarray(0, 1024), true).includes('%PDF-')) return 'pdf';
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return packedKind(bytes);
  if (COMPOUND.every((byte, i) => bytes[i] === byte)) return compoundKind(bytes, ending);
  if (strFromU8(bytes.subarray(0, 5), true) === '{\\rtf') return 'rtf';
  if ((ending === 'md' || ending === 'txt') && decodeText(bytes) !== undefined) return ending;
  throw UNKNOWN;
}

/** An older office file, or one of today's that a password keeps closed ([MS-OFFCRYPTO] §2.3.4.4). */
function compoundKind(bytes: Uint8Array, ending: string): DocumentKind {
  const isEncrypted = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).includes(ENCRYPTED_PART);
  if (isEncrypted)
    throw new Problem(
      422,
      'document-password',
      'This document is protected with a password. Please open it, save a copy without one, and choose that.',
    );
  return ending.startsWith('pp') ? 'ppt' : 'doc';
}

/** Reads the list of a packed document's parts, unpacking nothing (APPNOTE.TXT §4.3.12). */
function packedKind(bytes: Uint8Array): DocumentKind {
  const names: string[] = [];
  let unpacked = 0;
  let suspect = false;
  try {
    unzipSync(bytes, {
      filter: ({ name, size, originalSize }) => {
        names.push(name);
        unpacked += originalSize;
        suspect ||= originalSize > SUSPECT_BYTES && originalSize > SUSPECT_RATIO * Math.max(1, size);
        return false;
      },
    });
  } catch {
    throw new Problem(
      422,
      'document-damaged',
      'This document is damaged and cannot be read. Please open it in another program, save it again, and choose that one.',
    );
  }
  if (suspect || unpacked > MAX_UNPACKED || names.length > MAX_PARTS) {
    throw new Problem(
      413,
      'unfolds-too-large',
      'This document unfolds to far more than it should, so it was not opened. Please save it as PDF and choose that one.',
    );
  }
  if (names.includes('ppt/presentation.xml')) return 'pptx';
  if (names.includes('word/document.xml')) return 'docx';
  if (names.includes('mimetype')) return openKind(bytes);
  throw UNKNOWN;
}

/** An OpenDocument file says what it is in its first part (ODF 1.3 part 2, §3.3). */
function openKind(bytes: Uint8Array): DocumentKind {
  const { mimetype } = unzipSync(bytes, {
    filter: ({ name, originalSize }) => name === 'mimetype' && originalSize < 200,
  });
  const type = mimetype ? strFromU8(mimetype) : '';
  if (type.includes('opendocument.presentation')) return 'odp';
  if (type.includes('opendocument.text')) return 'odt';
  throw UNKNOWN;
}
