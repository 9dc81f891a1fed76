import { defineConfig } from '@playwright/test';
import type { Options } from './support/fixtures';

export default defineConfig<object, Options>({
  testDir: 'tests',
  // Wide: a busy machine makes tests slow, never red.
  timeout: 600_000,
  expect: { timeout: 120_000 },
  workers: 2,
  // A machine that stands still for minutes is no fault of the program; what came good only then is named at the end.
  retries: process.env.CI ? 1 : 0,
  reporter: [['list'], ['json', { outputFile: 'test-results/results.json' }]],
  projects: [
    { name: 'localhost' },
    {
      // What a school without a certificate has: no secure context, so much of the browser is missing.
      name: 'plain HTTP',
      grep: /@plain/,
      use: { host: 'doodla.test' },
    },
  ],
  use: {
    // Less than a test has, so that what never comes is known before it.
    actionTimeout: 120_000,
    navigationTimeout: 120_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--host-resolver-rules=MAP doodla.test 127.0.0.1',
        // A screen and a camera that are always there, and nobody who has to be asked.
        '--use-fake-ui-for-media-stream',
        '--use-fake-device-for-media-stream',
      ],
    },
  },
});
