// Writes a Brotli and a gzip twin beside every built file that gets smaller by it, so that the server need not.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

const WORTH_IT = /\.(js|mjs|css|html|svg|json|wasm|ttf|bcmap|icc)$/;
/** Ready pictures are a thousand small ones, of which few are fetched. */
const MANY = /^ready\/.*\.svg$/;
/** Above this many bytes the best Brotli takes seconds for little. */
const LARGE = 3_000_000;

const brotli = (bytes) =>
  brotliCompressSync(bytes, {
    params: { [constants.BROTLI_PARAM_QUALITY]: bytes.length > LARGE ? 6 : 11 },
  });

export function precompress(folder) {
  for (const name of readdirSync(folder, { recursive: true })) {
    if (!WORTH_IT.test(name) || MANY.test(name)) continue;
    const path = join(folder, name);
    const bytes = readFileSync(path);
    for (const [end, twin] of [
      ['.br', brotli(bytes)],
      ['.gz', gzipSync(bytes, { level: 9 })],
    ])
      if (twin.length < bytes.length * 0.95) writeFileSync(path + end, twin);
  }
}
