import { defineConfig } from 'vitest/config';

export default defineConfig({
  // All of the tests run on the sources of core, server and browser.
  resolve: { conditions: ['source', 'module', 'node', 'development|production'] },
  ssr: { resolve: { conditions: ['source', 'module', 'node', 'development|production'] } },
  oxc: { decorator: { legacy: true, emitDecoratorMetadata: true } },
  test: {
    include: [
      'core/test/**/*.test.ts',
      'server/test/**/*.test.ts',
      'web/test/**/*.test.ts',
      'companion/test/**/*.test.ts',
    ],
    // Wide: a busy machine makes tests slow, never red.
    testTimeout: 180_000,
    hookTimeout: 180_000,
    expect: { poll: { timeout: 90_000 } },
    // One more than a small machine has cores: some tests wait for limits of time, or for processes of their own.
    maxWorkers: 3,
    // Modules are loaded once for each worker, not once for each file.
    isolate: false,
    globalSetup: ['scripts/buildForTests.mjs'],
    setupFiles: ['web/test/helpers/speakEnglish.ts'],
  },
});
