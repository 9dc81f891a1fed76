import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);

/** The font that typed text is laid out in. */
export const andika = new Uint8Array(
  readFileSync(require.resolve('@expo-google-fonts/andika/Andika_400Regular.ttf')),
);
