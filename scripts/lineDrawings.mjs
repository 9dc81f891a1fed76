// Writes the clean line drawings into the built web application: their lines, and by language what each is called and found by.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { ICON_SIDE, linesOfIcon } from './iconLines.mjs';

const require = createRequire(new URL('../web/package.json', import.meta.url));
const read = (path) => JSON.parse(readFileSync(require.resolve(path), 'utf8'));

const LANGUAGES = ['en', 'de'];

/** What is drawn: a name in the set, the emoji that means the same, and what it is called where that is not the name. */
function things() {
  const table = readFileSync(new URL('./lineDrawings.txt', import.meta.url), 'utf8');
  return table
    .trim()
    .split('\n')
    .map((line) => {
      const [id, hexcode, german, english] = line.split(';');
      return { id, hexcode: hexcode.toUpperCase(), en: english ?? id.replaceAll('-', ' '), de: german };
    });
}

/** The drawings, lines first; `readSvg` reads the shapes of an SVG. */
export function lineDrawings(readSvg) {
  const set = read('lucide-static/icon-nodes.json');
  return things().map(({ id }) => ({ id, lines: linesOfIcon(bodyOf(set[id]), readSvg) }));
}

function bodyOf(nodes) {
  const attributes = (all) =>
    Object.entries(all)
      .filter(([name]) => name !== 'key')
      .map(([name, value]) => `${name}="${value}"`)
      .join(' ');
  return nodes.map(([tag, all]) => `<${tag} ${attributes(all)}/>`).join('');
}

export async function writeLineDrawings(dist) {
  const { readSvg } = await import('../core/dist/formats/index.js');
  const folder = join(dist, 'drawings');
  mkdirSync(folder, { recursive: true });
  writeFileSync(
    join(folder, 'lines.json'),
    JSON.stringify({ side: ICON_SIDE, drawings: lineDrawings(readSvg) }),
  );
  for (const language of LANGUAGES)
    writeFileSync(join(folder, `${language}.json`), JSON.stringify(indexIn(language)));
  writeFileSync(join(folder, 'LICENSE.txt'), licences());
}

/** Of each drawing: its name in the set, what it is called, and other words for it. */
export function indexIn(language) {
  const tags = read('lucide-static/tags.json');
  const emoji = new Map(
    read(`emojibase-data/${language}/data.json`).map(({ hexcode, label, tags: words = [] }) => [
      hexcode.replace(/-FE0F/g, ''),
      [label, ...words],
    ]),
  );
  return things()
    .map((thing) => {
      const words = [
        ...(emoji.get(thing.hexcode) ?? []),
        ...(language === 'en' ? (tags[thing.id] ?? []) : []),
      ];
      return [thing.id, thing[language], [...new Set(words)].join(' ')];
    })
    .sort(([, a], [, b]) => a.localeCompare(b, language));
}

function licences() {
  const { name, license, homepage } = read('lucide-static/package.json');
  const text = readFileSync(require.resolve('lucide-static/LICENSE'), 'utf8');
  return `Drawings: ${name}, ${homepage} (${license})\nOther words for them: Unicode CLDR (Unicode-3.0)\n\n${text}`;
}
