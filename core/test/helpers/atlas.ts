import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Atlas } from '../../src/maps/index.js';

const require = createRequire(import.meta.url);

/** Countries as Natural Earth draws them at a scale of 1 to so many million. */
export const atlas = (scale: '110m' | '50m'): Atlas =>
  JSON.parse(readFileSync(require.resolve(`world-atlas/countries-${scale}.json`), 'utf8')) as Atlas;
