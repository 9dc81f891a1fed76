// What a student's browser downloads before the page shows: all scripts of the way in and of the
// class, without the PDF engine. Gzipped bytes, against the limit of 200 kB.
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';

const LIMIT = 200_000;
const dist = new URL('../../web/dist/', import.meta.url);
const manifest = JSON.parse(readFileSync(new URL('.vite/manifest.json', dist), 'utf8'));

/** Files of a chunk and of all that it needs at once. */
function filesOf(name, seen = new Set()) {
  const chunk = manifest[name];
  if (seen.has(chunk.file)) return seen;
  seen.add(chunk.file);
  for (const needed of chunk.imports ?? []) filesOf(needed, seen);
  return seen;
}

const entries = ['index.html', 'src/classroom/JoinPage.tsx', 'src/classroom/StudentPage.tsx'];
const files = new Set(entries.flatMap((name) => [...filesOf(name)]));
const sizes = Object.fromEntries(
  [...files].map((file) => [file, gzipSync(readFileSync(new URL(file, dist))).length]),
);
const bytes = Object.values(sizes).reduce((sum, size) => sum + size, 0);
console.log(JSON.stringify({ bench: 'size', bytes, limit: LIMIT, ratio: bytes / LIMIT, sizes }));
if (bytes > LIMIT) process.exit(1);
