// What a student's browser downloads before the page shows: all scripts of the way in and of the class, without the PDF engine.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Names of the files in a built `dist` folder. */
export function firstDownload(dist) {
  const manifest = JSON.parse(readFileSync(join(dist, '.vite', 'manifest.json'), 'utf8'));
  const seen = new Set();
  const take = (chunk) => {
    if (seen.has(chunk.file)) return;
    seen.add(chunk.file);
    for (const needed of chunk.imports ?? []) take(manifest[needed]);
  };
  Object.values(manifest)
    .filter(({ name, isEntry }) => isEntry || /^(join|class)$/.test(name))
    .forEach(take);
  return [...seen];
}
