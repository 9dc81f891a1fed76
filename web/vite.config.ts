import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { defineConfig } from 'vite';
import { viteStaticCopy } from 'vite-plugin-static-copy';
import { noChunkCycles } from './chunkCycles.ts';

const require = createRequire(import.meta.url);
const pdfjs = dirname(require.resolve('pdfjs-dist/package.json'));
const katex = dirname(require.resolve('katex'));
const mathlive = dirname(require.resolve('mathlive'));
const router = dirname(require.resolve('react-router/package.json'));

interface Modules {
  getModuleInfo(id: string): { importers: readonly string[] } | null;
}

/** A file that hands on what others have; what is imported by it may come from any of them. */
const INDEX = /core\/src\/(\w+\/)?index\.ts$/;

/** Whether a module is there as soon as another one is, by imports that wait for nothing. */
function comesWith(top: RegExp, modules: Modules, id: string, seen = new Set<string>()): boolean {
  if (top.test(id)) return true;
  seen.add(id);
  const importers = modules.getModuleInfo(id)?.importers ?? [];
  return importers.some((by) => !seen.has(by) && !INDEX.test(by) && comesWith(top, modules, by, seen));
}

/**
 * A few files are quicker than dozens of tiny ones: what all begins with, and a student's way in. A student's page is
 * all that goes with it, and what of `core` is wanted at once.
 */
const FIRST = {
  words: /web\/src\/main\.tsx$|core\/src\/client\/store\.ts$/,
  start: /web\/src\/app\/start\.tsx$/,
  join: /JoinPage\.tsx$/,
  class: /StudentPage\.tsx$/,
};

/**
 * What every page is drawn and judged by; apart, it came in twenty files that were 1 % larger (`bench:size`). All that
 * these import is named with them: a file of its own for it could import them in turn.
 */
const CORE = [
  /core\/src\/(marks|geometry|paint|ops|pages|checks|colour|live)\/|core\/src\/ideas\/ideaRules\./,
  /core\/src\/(text\/(font|fonts|faceTables|layout|searchWords|pageWords)|ink\/(outline|points|packedPoints|texture|tilt)|annotation\/textQuote)\./,
  /core\/src\/client\/(line|signal|socketLine|classClient)\./,
  /node_modules\/(rbush|quickselect|fast-deep-equal|fractional-indexing|perfect-freehand)\//,
];

/** Small things that several parts share: a page's list of what it fetches later grows with each file. */
const SMALL =
  /web\/src\/(ui\/(afterRest|Choice|DragStrip|Grip|NameTag|pensLabel|SelectField|spacedCode|Switch|Tick|useDrag|useNear)|desk\/(asGroup|workerLink)|selection\/(cornerLetter|markGround)|handout\/(fileName|saveFile)|words\/optionNames|roster\/penTags|present\/keepAwake|screen\/lastPicture|material\/limitedWorker)\.tsx?/;

function firstGroup(id: string, modules: Modules): string | null {
  return Object.entries(FIRST).find(([, top]) => comesWith(top, modules, id))?.[0] ?? null;
}

export default defineConfig({
  resolve: {
    conditions: ['source', 'module', 'browser', 'development|production'],
    // The package names its development build alone; the other one is without the warnings for developers.
    alias: [{ find: /^react-router$/, replacement: `${router}/dist/production/index.mjs` }],
  },
  plugins: [
    react(),
    tailwindcss(),
    noChunkCycles(),
    viteStaticCopy({
      targets: ['cmaps', 'standard_fonts', 'wasm', 'iccs']
        .map((folder) => ({
          src: `${pdfjs}/${folder}`,
          dest: 'pdfjs',
        }))
        .concat(
          // Outlines are made of the first, formulas are typed in the second.
          [`${katex}/fonts/*.ttf`, `${mathlive}/fonts/*.woff2`].map((src) => ({ src, dest: 'formulas' })),
        ),
    }),
  ],
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    // Browsers without it fetch the same files a moment later.
    modulePreload: { polyfill: false },
    sourcemap: false,
    manifest: true,
    chunkSizeWarningLimit: 1500,
    rolldownOptions: {
      output: {
        // Names of files stand in the first download by the hundred: seven signs of a hash tell versions apart as well.
        chunkFileNames: 'assets/[name]-[hash:7].js',
        assetFileNames: 'assets/[name]-[hash:7][extname]',
        codeSplitting: {
          includeDependenciesRecursively: false,
          groups: [
            { name: 'react', test: /node_modules\/(react|react-dom|scheduler)\//, priority: 3 },
            { name: firstGroup, debugName: 'first', priority: 2 },
            { name: 'core', test: (id) => CORE.some((part) => part.test(id)), priority: 1 },
            { name: 'small', test: SMALL, priority: 1 },
            { name: 'icons', test: /node_modules\/lucide-react\//, priority: 1 },
          ],
        },
      },
    },
  },
});
