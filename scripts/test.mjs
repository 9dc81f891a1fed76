// Runs every check, goes on after a failure, and writes what was counted to test-results/summary.json.
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';

const RESULTS = 'test-results';
const UNIT = `${RESULTS}/unit.json`;
const BROWSER = 'e2e/test-results/results.json';

rmSync(RESULTS, { recursive: true, force: true });
rmSync(BROWSER, { force: true });
mkdirSync(RESULTS, { recursive: true });

/** Checks that only say yes or no. */
const checks = [
  ['types and build', 'node', 'scripts/build.mjs'],
  ['formatting', 'npm', 'run', '-s', 'format:check'],
  ['lint', 'npm', 'run', '-s', 'lint'],
  ['size of what students download', 'node', 'bench/src/size.mjs'],
];
/** Runners that count. */
const runners = [
  [
    'unit tests',
    'npx',
    'vitest',
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${UNIT}`,
  ],
  ['browser tests', 'npm', 'run', '-s', 'e2e'],
];

const failedSteps = [...checks, ...runners].filter(([name, command, ...args]) => {
  console.log(`\n=== ${name}`);
  return spawnSync(command, args, { stdio: 'inherit' }).status !== 0;
});

const unit = read(UNIT);
const browser = read(BROWSER)?.stats;
const passed = (unit?.numPassedTests ?? 0) + (browser?.expected ?? 0);
const counted = (unit?.numFailedTests ?? 0) + (browser?.unexpected ?? 0) + (browser?.flaky ?? 0);
// A step that failed without counting anything counts as one failure.
const failed = Math.max(counted, failedSteps.length);
writeFileSync(`${RESULTS}/summary.json`, JSON.stringify({ passed, failed }));
for (const [name] of failedSteps) console.log(`FAILED: ${name}`);
console.log(`\n${passed} tests went well, ${failed} did not`);
process.exit(failed === 0 ? 0 : 1);

function read(path) {
  try {
    return JSON.parse(readFileSync(path, 'utf8'));
  } catch {
    return undefined;
  }
}
