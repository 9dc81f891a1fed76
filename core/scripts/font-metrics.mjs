// Writes src/text/metrics/*.json: the advance widths that text layout works with,
// read from the same font files that the screen and the PDF use.
import { openSync } from 'fontkit';
import { writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

const require = createRequire(import.meta.url);
const folder = dirname(require.resolve('@expo-google-fonts/andika/package.json'));
const target = new URL('../src/text/metrics/', import.meta.url).pathname;

const fonts = { andika: 'Andika_400Regular.ttf' };

for (const [name, file] of Object.entries(fonts)) {
  const font = openSync(join(folder, file));
  const runs = [];
  for (const codePoint of font.characterSet.sort((a, b) => a - b)) {
    const advance = font.glyphForCodePoint(codePoint).advanceWidth;
    const run = runs.at(-1);
    if (run && run[0] + run.length - 1 === codePoint) run.push(advance);
    else runs.push([codePoint, advance]);
  }
  const { unitsPerEm, ascent, descent } = font;
  const body = JSON.stringify({ unitsPerEm, ascent, descent, runs });
  writeFileSync(join(target, `${name}.json`), `${body}\n`);
}
