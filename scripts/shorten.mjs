// Makes the scripts of the first download shorter than the bundler leaves them: about 1 % of their compressed size.
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { minify } from 'terser';

const COMPRESS = { passes: 3, ecma: 2020, module: true, toplevel: true, unsafe_arrows: true };

/** `files` are the names in the folder; each is a module of a browser. */
export async function shorten(folder, files) {
  for (const file of files) {
    const path = join(folder, file);
    const { code } = await minify(readFileSync(path, 'utf8'), {
      module: true,
      ecma: 2020,
      compress: COMPRESS,
    });
    writeFileSync(path, code);
  }
}
