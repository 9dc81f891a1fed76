import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['core/test/**/*.test.ts', 'server/test/**/*.test.ts', 'web/test/**/*.test.ts'],
    // Wide: a busy machine makes tests slow, never red.
    testTimeout: 180_000,
    hookTimeout: 180_000,
    expect: { poll: { timeout: 90_000 } },
    // Both cores of a small machine; one would be left idle otherwise.
    maxWorkers: 2,
    // The server is tested as it is built, with its decorators compiled.
    server: { deps: { external: [/\/(server|core)\/dist\//] } },
  },
});
