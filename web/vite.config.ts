import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { defineConfig } from 'vite';
import { viteStaticCopy } from 'vite-plugin-static-copy';

const require = createRequire(import.meta.url);
const pdfjs = dirname(require.resolve('pdfjs-dist/package.json'));
const router = dirname(require.resolve('react-router/package.json'));

export default defineConfig({
  resolve: {
    conditions: ['source', 'module', 'browser', 'development|production'],
    // The package names its development build alone; the other one is without the warnings for developers.
    alias: [{ find: /^react-router$/, replacement: `${router}/dist/production/index.mjs` }],
  },
  plugins: [
    react(),
    tailwindcss(),
    viteStaticCopy({
      targets: ['cmaps', 'standard_fonts', 'wasm', 'iccs'].map((folder) => ({
        src: `${pdfjs}/${folder}`,
        dest: 'pdfjs',
      })),
    }),
  ],
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    sourcemap: false,
    manifest: true,
    chunkSizeWarningLimit: 1500,
    rolldownOptions: {
      // One file of icons is quicker than dozens of tiny ones.
      output: {
        codeSplitting: {
          groups: [
            { name: 'react', test: /node_modules\/(react|react-dom|scheduler)\//, priority: 2 },
            { name: 'icons', test: /node_modules\/lucide-react\//, priority: 1 },
          ],
        },
      },
    },
  },
});
