// Writes src/text/metrics/*.json: the advance widths that text layout works with,
// read from the same font files that the screen and the PDF use.
import { openSync } from 'fontkit';
import { writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';

const require = createRequire(import.meta.url);
const target = new URL('../src/text/metrics/', import.meta.url).pathname;

/** Path of a cut within the packages; most keep each cut in a folder of its own. */
function fontFile(family, cut) {
  const [folder, name] = family.split('/');
  return folder === 'andika' ? `${family}_${cut}.ttf` : `${folder}/${cut}/${name}_${cut}.ttf`;
}

const cuts = {
  '': '400Regular',
  '-bold': '700Bold',
  '-italic': '400Regular_Italic',
  '-bold-italic': '700Bold_Italic',
};
const families = {
  andika: 'andika/Andika',
  serif: 'noto-serif/NotoSerif',
  mono: 'jetbrains-mono/JetBrainsMono',
};
const fonts = { hand: 'patrick-hand/400Regular/PatrickHand_400Regular.ttf' };
for (const [name, family] of Object.entries(families)) {
  for (const [cut, file] of Object.entries(cuts)) fonts[name + cut] = fontFile(family, file);
}

/** Scripts that are laid out by their own widths; anything else counts as missing from the face. */
const LAST_CODE_POINT = 0x2fff;

for (const [name, file] of Object.entries(fonts)) {
  const font = openSync(require.resolve(`@expo-google-fonts/${file}`));
  const runs = [];
  for (const codePoint of font.characterSet.sort((a, b) => a - b)) {
    if (codePoint > LAST_CODE_POINT) continue;
    const advance = font.glyphForCodePoint(codePoint).advanceWidth;
    const run = runs.at(-1);
    if (run && run[0] + run.length - 1 === codePoint) run.push(advance);
    else runs.push([codePoint, advance]);
  }
  const { unitsPerEm, ascent, descent } = font;
  const body = JSON.stringify({ unitsPerEm, ascent, descent, runs });
  writeFileSync(join(target, `${name}.json`), `${body}\n`);
}
