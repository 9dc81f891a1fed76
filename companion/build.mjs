// Builds the companion for each browser: an unpacked folder and a file to be installed.
import { Resvg } from '@resvg/resvg-js';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { zipSync } from 'fflate';
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'vite';
import { LOCALES } from './locales.mjs';
import { manifestOf } from './manifest.mjs';
import { shadowStyles } from './shadowStyles.mjs';

const here = (path) => fileURLToPath(new URL(path, import.meta.url));
const require = createRequire(import.meta.url);
const DIST = here('dist');
const SCRIPTS = {
  'words.en': 'src/words/speak.en.ts',
  'words.de': 'src/words/speak.de.ts',
  page: 'src/page/main.tsx',
  background: 'src/background/main.ts',
  typing: 'src/typing/typing.ts',
};
const GOOGLE = '@expo-google-fonts';
/** Letters of the interface, and of everything that is typed, by the names under which they are asked for. */
const FONTS = {
  interface: '@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-400-normal.woff2',
  'interface-bold': '@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-700-normal.woff2',
  andika: `${GOOGLE}/andika/Andika_400Regular.ttf`,
  'andika-bold': `${GOOGLE}/andika/Andika_700Bold.ttf`,
  'andika-italic': `${GOOGLE}/andika/Andika_400Regular_Italic.ttf`,
  'andika-bold-italic': `${GOOGLE}/andika/Andika_700Bold_Italic.ttf`,
  serif: `${GOOGLE}/noto-serif/400Regular/NotoSerif_400Regular.ttf`,
  'serif-bold': `${GOOGLE}/noto-serif/700Bold/NotoSerif_700Bold.ttf`,
  'serif-italic': `${GOOGLE}/noto-serif/400Regular_Italic/NotoSerif_400Regular_Italic.ttf`,
  'serif-bold-italic': `${GOOGLE}/noto-serif/700Bold_Italic/NotoSerif_700Bold_Italic.ttf`,
  mono: `${GOOGLE}/jetbrains-mono/400Regular/JetBrainsMono_400Regular.ttf`,
  'mono-bold': `${GOOGLE}/jetbrains-mono/700Bold/JetBrainsMono_700Bold.ttf`,
  'mono-italic': `${GOOGLE}/jetbrains-mono/400Regular_Italic/JetBrainsMono_400Regular_Italic.ttf`,
  'mono-bold-italic': `${GOOGLE}/jetbrains-mono/700Bold_Italic/JetBrainsMono_700Bold_Italic.ttf`,
  hand: `${GOOGLE}/patrick-hand/400Regular/PatrickHand_400Regular.ttf`,
};

/** Parts of the web application that a page of somebody else's has no room for, and what stands in for them. */
const INSTEAD = {
  './faces': 'src/page/nearFaces.ts',
  './shapesLink': 'src/page/nearShapes.ts',
  // Each language is a file of its own, brought before all others.
  './en': 'src/words/none.ts',
  './de': 'src/words/none.ts',
  './pseudo': 'src/words/none.ts',
};

rmSync(DIST, { recursive: true, force: true });
for (const [name, entry] of Object.entries(SCRIPTS)) await buildScript(name, entry);
await buildPages();
layOut();

async function buildScript(name, entry) {
  const isWords = name.startsWith('words.');
  await build({
    configFile: false,
    root: here('.'),
    logLevel: 'warn',
    publicDir: false,
    define: { 'process.env.NODE_ENV': '"production"' },
    resolve: {
      conditions: ['source', 'module', 'browser', 'production'],
      alias: [
        { find: '@web', replacement: here('../web/src') },
        ...(isWords
          ? []
          : Object.entries(INSTEAD).map(([find, path]) => ({
              find: new RegExp(`^${find.replace(/[./]/g, '\\$&')}$`),
              replacement: here(path),
            }))),
      ],
    },
    plugins: [react(), tailwindcss(), shadowStyles()],
    build: {
      target: 'es2022',
      outDir: join(DIST, 'scripts'),
      emptyOutDir: false,
      chunkSizeWarningLimit: 2000,
      lib: { entry: here(entry), formats: ['iife'], name: 'doodla', fileName: () => `${name}.js` },
    },
  });
}

/** The extension's own pages, in which everything is as in the web application. */
async function buildPages() {
  await build({
    configFile: false,
    root: here('.'),
    base: './',
    logLevel: 'warn',
    publicDir: false,
    resolve: {
      conditions: ['source', 'module', 'browser', 'production'],
      alias: [{ find: '@web', replacement: here('../web/src') }],
    },
    plugins: [react(), tailwindcss()],
    worker: { format: 'es' },
    build: {
      target: 'es2022',
      outDir: join(DIST, 'scripts'),
      emptyOutDir: false,
      modulePreload: { polyfill: false },
      chunkSizeWarningLimit: 3000,
      rolldownOptions: { input: [here('pages/class.html'), here('pages/picture.html')] },
    },
  });
}

/** Lays out an unpacked folder for each browser, and packs it. */
function layOut() {
  const { version } = JSON.parse(readFileSync(here('package.json'), 'utf8'));
  for (const browser of ['chromium', 'firefox']) {
    const folder = join(DIST, browser);
    cpSync(join(DIST, 'scripts'), folder, { recursive: true });
    for (const file of ['typing.html', 'typing.css']) cpSync(here(`src/typing/${file}`), join(folder, file));
    mkdirSync(join(folder, 'fonts'));
    for (const [name, font] of Object.entries(FONTS))
      cpSync(require.resolve(font), join(folder, 'fonts', name));
    drawIcons(folder);
    writeLocales(folder);
    writeFileSync(join(folder, 'manifest.json'), JSON.stringify(manifestOf(browser, version), undefined, 2));
    writeFileSync(join(DIST, `doodla-companion-${browser}.zip`), packed(folder));
  }
}

function drawIcons(folder) {
  const svg = readFileSync(here('../web/public/icon.svg'), 'utf8');
  mkdirSync(join(folder, 'icons'));
  for (const size of [16, 48, 128]) {
    const png = new Resvg(svg, { fitTo: { mode: 'width', value: size } }).render().asPng();
    writeFileSync(join(folder, 'icons', `${size}.png`), png);
  }
}

function writeLocales(folder) {
  for (const [language, messages] of Object.entries(LOCALES)) {
    mkdirSync(join(folder, '_locales', language), { recursive: true });
    writeFileSync(
      join(folder, '_locales', language, 'messages.json'),
      JSON.stringify(messages, undefined, 2),
    );
  }
}

/** All files of a folder in a zip that is the same whenever it is made. */
function packed(folder) {
  const files = readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name))
    .sort();
  const entries = files.map((file) => [relative(folder, file).replaceAll('\\', '/'), readFileSync(file)]);
  return zipSync(Object.fromEntries(entries), { level: 9, mtime: '2026-01-01' });
}
