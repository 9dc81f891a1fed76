// Writes the ready pictures into the built web application: an SVG each, and by language what each is called and found by.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

const require = createRequire(new URL('../web/package.json', import.meta.url));
const read = (path) => JSON.parse(readFileSync(require.resolve(path), 'utf8'));

const OPEN =
  '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="192" height="192"';
const LANGUAGES = ['en', 'de'];
/** The subjects of the pictures, each with the subgroups of Unicode's ordering (UTS 51) that belong to it. */
const SUBJECTS = {
  animals: [
    'animal-mammal',
    'animal-bird',
    'animal-amphibian',
    'animal-reptile',
    'animal-marine',
    'animal-bug',
  ],
  plants: ['plant-flower', 'plant-other'],
  food: [
    ...['food-fruit', 'food-vegetable', 'food-prepared', 'food-asian', 'food-sweet', 'drink', 'dishware'],
  ],
  body: ['body-parts'],
  people: ['person', 'person-role', 'person-activity', 'person-sport', 'person-gesture', 'family'],
  feelings: [
    ...['face-smiling', 'face-affection', 'face-neutral-skeptical', 'face-sleepy', 'face-unwell'],
    ...['face-glasses', 'face-concerned', 'face-negative', 'heart'],
  ],
  earth: ['place-map', 'place-geographic', 'sky-weather'],
  places: ['place-building', 'place-religious', 'place-other'],
  transport: ['transport-ground', 'transport-water', 'transport-air', 'transport-sign'],
  time: ['time', 'event'],
  sport: ['sport', 'game', 'award-medal'],
  music: ['sound', 'music', 'musical-instrument', 'arts-crafts'],
  school: ['book-paper', 'writing', 'office', 'computer', 'phone', 'light-video', 'mail', 'money'],
  science: ['science', 'medical', 'tool'],
  home: ['household', 'clothing', 'other-object', 'lock'],
  signs: ['math', 'geometric', 'arrow', 'warning', 'punctuation', 'currency'],
  countries: ['country-flag', 'subdivision-flag', 'flag'],
};

/** The letter that a regional indicator symbol stands for (Unicode 17.0, block 1F100). */
const letterOf = (symbol) => String.fromCharCode(parseInt(symbol, 16) - 0x1f1e6 + 97);

function pictureSources() {
  const set = read('@iconify-json/noto/icons.json');
  const names = read('@iconify-json/noto/chars.json');
  const flags = join(dirname(require.resolve('flag-icons/package.json')), 'flags', '4x3');
  const drawn = (hexcode) => {
    const body = set.icons[names[hexcode.replace(/-fe0f/g, '')] ?? names[hexcode]]?.body;
    return body && `${OPEN} viewBox="0 0 ${set.width} ${set.height}">${body}</svg>`;
  };
  const flag = (hexcode) => {
    if (!/^1f1[ef].-1f1[ef].$/.test(hexcode)) return undefined;
    const path = join(flags, `${hexcode.split('-').map(letterOf).join('')}.svg`);
    return existsSync(path)
      ? readFileSync(path, 'utf8').replace('<svg ', '<svg width="192" height="144" ')
      : undefined;
  };
  return (hexcode) => drawn(hexcode) ?? flag(hexcode);
}

export function writeReadyPictures(dist) {
  const folder = join(dist, 'ready');
  mkdirSync(folder, { recursive: true });
  const pictureOf = pictureSources();
  const written = new Map();
  const isDrawn = (hexcode) => {
    if (!written.has(hexcode)) {
      const svg = pictureOf(hexcode);
      written.set(hexcode, svg !== undefined);
      if (svg !== undefined) writeFileSync(join(folder, `${hexcode}.svg`), svg);
    }
    return written.get(hexcode);
  };
  for (const language of LANGUAGES)
    writeFileSync(join(folder, `${language}.json`), JSON.stringify(indexIn(language, isDrawn)));
  writeFileSync(join(folder, 'LICENSE.txt'), licences());
}

/** By subject: each picture's file, what it is called, and other words for it. */
function indexIn(language, isDrawn) {
  const { subgroups } = read('emojibase-data/meta/groups.json');
  const all = read(`emojibase-data/${language}/data.json`).sort((a, b) => a.order - b.order);
  const index = {};
  for (const [subject, groups] of Object.entries(SUBJECTS))
    index[subject] = all
      .filter(({ subgroup }) => groups.includes(subgroups[subgroup]))
      .map(({ hexcode, label, tags = [] }) => [hexcode.toLowerCase(), label, tags.join(' ')])
      .filter(([hexcode]) => isDrawn(hexcode));
  return index;
}

function licences() {
  const { name, author, license } = read('@iconify-json/noto/info.json');
  const flags = read('flag-icons/package.json');
  return [
    `Pictures: ${name}, ${author.name} (${author.url}), ${license.title} (${license.spdx}), ${license.url}`,
    `Flags: ${flags.name}, ${flags.author}, ${flags.license}`,
    'Their names: Unicode CLDR (Unicode-3.0)',
    '',
  ].join('\n');
}
