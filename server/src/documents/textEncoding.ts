import { detect } from 'chardet';

/** How much of a text is looked at to tell its encoding. */
const LOOKED_AT = 65_536;

/** The text in some bytes, by what they look like; undefined where they are no text. */
export function decodeText(bytes: Uint8Array): string | undefined {
  const label =
    utf16Of(bytes) ?? (isUtf8(bytes) ? 'utf-8' : (detect(bytes.subarray(0, LOOKED_AT)) ?? 'windows-1252'));
  const text = decoderOf(label).decode(bytes);
  // eslint-disable-next-line no-control-regex -- what no text has is what is looked for
  return /[\0-\x08\x0e-\x1a\x1c-\x1f]/.test(text.slice(0, LOOKED_AT)) ? undefined : text;
}

/** Labels are those of the Encoding Standard; a detector knows some more. */
function decoderOf(label: string): TextDecoder {
  try {
    return new TextDecoder(label);
  } catch {
    // An encoding that nothing here can read: most texts that are in none of the others are in this one.
    return new TextDecoder('windows-1252');
  }
}

/** Whether bytes are text in UTF-8 from beginning to end. */
export function isUtf8(bytes: Uint8Array): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return true;
  } catch {
    // Another encoding, to be found out.
    return false;
  }
}

/** UTF-16 has its mark at the beginning (RFC 2781), or a zero in nearly every second byte of what is Latin. */
function utf16Of(bytes: Uint8Array): string | undefined {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  const zeros = [0, 0];
  const looked = Math.min(bytes.length, 4096);
  for (let i = 0; i < looked; i++) if (bytes[i] === 0) zeros[i % 2]! += 1;
  if (zeros[1]! > looked / 4 && zeros[0]! < looked / 50) return 'utf-16le';
  if (zeros[0]! > looked / 4 && zeros[1]! < looked / 50) return 'utf-16be';
  return undefined;
}
