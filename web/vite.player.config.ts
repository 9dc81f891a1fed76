import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const letters = fileURLToPath(new URL('src/packed/letters.ts', import.meta.url));

/** What plays an explanation in a page that needs no other file: one script and one style sheet, put into that page. */
export default defineConfig({
  resolve: {
    conditions: ['source', 'module', 'browser', 'production'],
    // Such a page brings its letters with it.
    alias: [{ find: './fontFiles', replacement: letters }],
  },
  define: { 'process.env.NODE_ENV': '"production"' },
  publicDir: false,
  plugins: [react(), tailwindcss()],
  build: {
    target: 'es2022',
    outDir: 'dist/player',
    emptyOutDir: true,
    sourcemap: false,
    chunkSizeWarningLimit: 1500,
    lib: {
      entry: 'src/packed/standalone.tsx',
      formats: ['iife'],
      name: 'doodlaPlayer',
      fileName: () => 'player.js',
      cssFileName: 'player',
    },
  },
});
