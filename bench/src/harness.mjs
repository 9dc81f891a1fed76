import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from 'playwright-core';

const MAIN = fileURLToPath(new URL('../../server/dist/main.js', import.meta.url));
const PORT = 4690;

/** Runs a bench against the built server and a headless Chromium, and clears both away afterwards. */
export async function withBrowser(run) {
  const data = mkdtempSync(join(tmpdir(), 'doodla-bench-'));
  const server = spawn(process.execPath, [MAIN], {
    env: { ...process.env, DOODLA_PORT: String(PORT), DOODLA_DATA: data },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await once(server.stdout, 'data');
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--enable-precise-memory-info',
      '--js-flags=--expose-gc',
    ],
  });
  try {
    const context = await browser.newContext({
      baseURL: `http://localhost:${PORT}`,
      viewport: { width: 1280, height: 800 },
    });
    await context.request.post('/api/setup', {
      data: { name: 'Bench', email: 'bench@school.example', password: 'bench-and-beam' },
    });
    return await run(context, browser);
  } finally {
    await browser.close();
    server.kill('SIGKILL');
    rmSync(data, { recursive: true, force: true });
  }
}
