import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import type { MadeFile } from './madeFile.js';

/** What is compressed already, so that doing it again would only take time. */
const COMPRESSED = /\.(png|jpe?g|webp|pptx|zip|webm|mp4|mp3|ogg|woff2)$/i;

/** Packs files into one as they are made (ZIP, ISO/IEC 21320-1), so that only one of them is held at a time. */
export async function zipFiles(
  files: AsyncIterable<MadeFile>,
  onPiece: (piece: Uint8Array) => void,
): Promise<void> {
  let failure: Error | undefined;
  const zip = new Zip((error, piece) => {
    if (error) failure = error;
    else onPiece(piece);
  });
  for await (const { name, bytes } of files) {
    const file = COMPRESSED.test(name) ? new ZipPassThrough(name) : new ZipDeflate(name, { level: 6 });
    zip.add(file);
    file.push(bytes, true);
    if (failure) throw failure;
  }
  zip.end();
  if (failure) throw failure;
}
