import type { PartSource } from './pageCopy.js';

export interface Archive {
  html: string;
  url: string;
  source: PartSource;
}

/** Most parts of one archive that are looked at. */
const MAX_ARCHIVE_PARTS = 2000;

interface Part {
  type: string;
  location: string;
  id: string;
  bytes: Buffer;
}

/** Whether a file is a web page archived as one MIME message (RFC 2557). */
export function isArchive(text: string): boolean {
  return (
    /^(from|subject|mime-version|content-type|date|snapshot)[^\n]*:/im.test(text.slice(0, 2000)) &&
    /content-type:\s*multipart\/related/i.test(text.slice(0, 4000))
  );
}

/**
 * Takes a web archive apart; undefined where there is no page in it. Ours, since postal-mime (4.0) does not tell the
 * Content-Location of parts, by which the page names them.
 */
export function openArchive(text: string): Archive | undefined {
  const boundary = /boundary="?([^"\r\n;]+)"?/i.exec(text.slice(0, 4000))?.[1];
  if (boundary === undefined) return undefined;
  const parts = text
    .split(`--${boundary}`)
    .slice(1, MAX_ARCHIVE_PARTS)
    .flatMap((part) => partOf(part) ?? []);
  const page = parts.find(({ type }) => type === 'text/html');
  if (!page) return undefined;
  const byPlace = new Map(
    parts.flatMap((part) => [part.location, part.id].map((key) => [key, part] as const)),
  );
  return {
    html: page.bytes.toString(),
    url: URL.canParse(page.location) ? page.location : 'http://archive.invalid/',
    source: (url) => Promise.resolve(byPlace.get(url)),
  };
}

function partOf(text: string): Part | undefined {
  const split = /\r?\n\r?\n/.exec(text);
  if (!split) return undefined;
  const head = text.slice(0, split.index).replace(/\r?\n[ \t]+/g, ' ');
  const field = (name: string) => new RegExp(`^${name}:\\s*(.*)$`, 'im').exec(head)?.[1]?.trim() ?? '';
  const body = text.slice(split.index + split[0].length);
  const encoding = field('Content-Transfer-Encoding').toLowerCase();
  return {
    type: field('Content-Type').split(';')[0]!.trim().toLowerCase(),
    location: field('Content-Location'),
    id: `cid:${field('Content-ID').replace(/[<>]/g, '')}`,
    bytes: decoded(body, encoding),
  };
}

/** Content-Transfer-Encoding (RFC 2045 §6). */
function decoded(body: string, encoding: string): Buffer {
  if (encoding === 'base64') return Buffer.from(body, 'base64');
  if (encoding !== 'quoted-printable') return Buffer.from(body);
  const joined = body.replace(/=\r?\n/g, '');
  const bytes = joined.replace(/=([0-9A-F]{2})/gi, (_, hex: string) =>
    String.fromCharCode(parseInt(hex, 16)),
  );
  return Buffer.from(bytes, 'latin1');
}
