// `npm run test:browsers`: the whole lesson in the browsers that Debian has beside Chromium. One that is not installed
// is left out, and said so; the exit code is that of failed steps.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { companionIn } from './companion.mjs';
import * as firefox from './firefox.mjs';
import { begin, STEPS } from './lesson.mjs';
import * as webkit from './webkit.mjs';

const MAIN = fileURLToPath(new URL('../../server/dist/main.js', import.meta.url));
const PORT = 4694;

let [passed, failed] = [0, 0];
for (const kind of [firefox, webkit]) {
  if (existsSync(kind.binary)) await lessonIn(kind);
  else console.log(`${kind.name}: not installed, left out`);
}
if (existsSync(firefox.binary)) await companion();
console.log(`${passed} passed, ${failed} failed`);
process.exitCode = failed > 0 ? 1 : 0;

async function companion() {
  try {
    await companionIn(firefox.binary);
    passed += 1;
    console.log('  ✓ the companion writes over a page and finds its place again');
  } catch (error) {
    failed += 1;
    console.log(`  ✘ the companion: ${error.message}`);
  }
}

async function lessonIn(kind) {
  const data = mkdtempSync(join(tmpdir(), 'doodla-browsers-'));
  const env = { ...process.env, DOODLA_PORT: String(PORT), DOODLA_DATA: data };
  const server = spawn(process.execPath, [MAIN], { env, stdio: ['ignore', 'pipe', 'inherit'] });
  await once(server.stdout, 'data');
  const browser = await kind.start();
  console.log(`${kind.name} (${browser.version})`);
  try {
    const lesson = await begin(browser, { url: `http://localhost:${PORT}`, port: PORT });
    await walk(lesson);
  } finally {
    await browser.close();
    server.kill('SIGKILL');
    rmSync(data, { recursive: true, force: true });
  }
}

/** Each step goes on from the one before, so the first that fails ends the lesson. */
async function walk(lesson) {
  for (const [what, step] of Object.entries(STEPS)) {
    try {
      await step(lesson);
      passed += 1;
      console.log(`  ✓ ${what}`);
    } catch (error) {
      failed += 1;
      console.log(`  ✘ ${what}\n    ${error.message}`);
      return;
    }
  }
}
