import { cpSync, mkdirSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const BUILT = fileURLToPath(new URL('../companion/dist/', import.meta.url));

/** Lays the files by which the companion is installed where the server offers them. */
export function offerCompanion(dist) {
  const folder = join(dist, 'extension');
  mkdirSync(folder, { recursive: true });
  for (const file of readdirSync(BUILT).filter((name) => name.endsWith('.zip')))
    cpSync(join(BUILT, file), join(folder, file));
}
