// What a student's browser downloads before the page shows: all scripts of the way in and of the
// class, without the PDF engine. Bytes as they are sent (Brotli), against the limit.
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { firstDownload } from '../../scripts/firstDownload.mjs';

const LIMIT = 190_000;
const dist = new URL('../../web/dist/', import.meta.url);
const files = firstDownload(fileURLToPath(dist));
const sizes = Object.fromEntries(files.map((file) => [file, sentBytes(file)]));
const bytes = Object.values(sizes).reduce((sum, size) => sum + size, 0);
console.log(JSON.stringify({ bench: 'size', bytes, limit: LIMIT, ratio: bytes / LIMIT, sizes }));
if (bytes > LIMIT) process.exit(1);

/** Length of a file's compressed twin, where it has one. */
function sentBytes(file) {
  const whole = readFileSync(new URL(file, dist)).length;
  try {
    return readFileSync(new URL(`${file}.br`, dist)).length;
  } catch {
    // A file that does not get smaller has no twin.
    return whole;
  }
}
