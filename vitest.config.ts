import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['core/test/**/*.test.ts', 'server/test/**/*.test.ts', 'web/test/**/*.test.ts'],
    testTimeout: 20_000,
    // The server is tested as it is built, with its decorators compiled.
    server: { deps: { external: [/\/(server|core)\/dist\//] } },
  },
});
