import { defineConfig } from 'vitest/config';
import { PORT, PROGRAMS } from './scripts/postgresForTests.mjs';
import { hasRedis, PORT as REDIS_PORT } from './scripts/redisForTests.mjs';

const common = {
  // All of the tests run on the sources of core, server and browser.
  resolve: { conditions: ['source', 'node', 'development|production'] },
  ssr: { resolve: { conditions: ['source', 'node', 'development|production'] } },
  oxc: { decorator: { legacy: true, emitDecoratorMetadata: true } },
};
const test = {
  // Wide: a busy machine makes tests slow, never red.
  testTimeout: 180_000,
  hookTimeout: 180_000,
  expect: { poll: { timeout: 90_000 } },
  // Modules are loaded once for each worker, not once for each file.
  isolate: false,
  setupFiles: ['web/test/helpers/speakEnglish.ts'],
};

/** Tests of the server that come nowhere near its database, or are about SQLite's file. */
const WITHOUT_DATABASE = [
  'backup',
  'documents',
  'earlierSchemas',
  'edge',
  'fullDisk',
  'migration',
  'pagePictures',
  'reading',
  'settings',
  'tls',
  'webApp',
  'webpages',
  'webStyles',
].map((name) => `server/test/${name}.test.ts`);

export default defineConfig({
  test: {
    // One more than a small machine has cores: some tests wait for limits of time, or for processes of their own.
    maxWorkers: 3,
    globalSetup: ['scripts/buildForTests.mjs'],
    projects: [
      {
        ...common,
        test: {
          ...test,
          name: 'sqlite',
          include: [
            'core/test/**/*.test.ts',
            'server/test/**/*.test.ts',
            'web/test/**/*.test.ts',
            'companion/test/**/*.test.ts',
          ],
        },
      },
      // The server's once more, where PostgreSQL is installed.
      ...(PROGRAMS
        ? [
            {
              ...common,
              test: {
                ...test,
                name: 'postgres',
                include: ['server/test/**/*.test.ts'],
                exclude: WITHOUT_DATABASE,
                env: {
                  TEST_POSTGRES: `postgres://doodla@127.0.0.1:${PORT}/postgres`,
                  ...(hasRedis && { TEST_REDIS: `redis://127.0.0.1:${REDIS_PORT}` }),
                },
                globalSetup: [
                  'scripts/postgresForTests.mjs',
                  ...(hasRedis ? ['scripts/redisForTests.mjs'] : []),
                ],
              },
            },
          ]
        : []),
    ],
  },
});
