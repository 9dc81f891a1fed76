// Runs every check, goes on after a failure, and writes what was counted to test-results/summary.json.
import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';

const RESULTS = 'test-results';
const UNIT = `${RESULTS}/unit.json`;
const BROWSER = 'e2e/test-results/results.json';

rmSync(RESULTS, { recursive: true, force: true });
rmSync(BROWSER, { force: true });
mkdirSync(RESULTS, { recursive: true });

const build = ['types and build', 'node', 'scripts/build.mjs'];
/** Checks that only say yes or no. */
const checks = [
  ['formatting', 'npm', 'run', '-s', 'format:check'],
  ['lint', 'npm', 'run', '-s', 'lint'],
  ['size of what students download', 'node', 'bench/src/size.mjs'],
];
const unitTests = [
  'unit tests',
  'npx',
  'vitest',
  'run',
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${UNIT}`,
];
const browserTests = ['browser tests', 'npm', 'run', '-s', 'e2e'];

const failedSteps = [];
await inTurn([build]);
// One core for the checks, the other for the unit tests.
await Promise.all([inTurn(checks), inTurn([unitTests])]);
await inTurn([browserTests], 'inherit');

const unit = read(UNIT);
const browser = read(BROWSER)?.stats;
const secondTry = flakyIn(read(BROWSER)?.suites ?? []);
const passed = (unit?.numPassedTests ?? 0) + (browser?.expected ?? 0) + secondTry.length;
const counted = (unit?.numFailedTests ?? 0) + (browser?.unexpected ?? 0);
// A step that failed without counting anything counts as one failure.
const failed = Math.max(counted, failedSteps.length);
writeFileSync(`${RESULTS}/summary.json`, JSON.stringify({ passed, failed }));
for (const [name] of failedSteps) console.log(`FAILED: ${name}`);
for (const title of failedIn(unit?.testResults ?? [])) console.log(`Red: ${title}`);
for (const title of secondTry) console.log(`Only at the second try: ${title}`);
console.log(`\n${passed} tests went well, ${failed} did not`);
process.exit(failed === 0 ? 0 : 1);

/** Runs steps one after the other; what a step prints comes in one piece at its end unless it is passed on. */
async function inTurn(steps, output = 'pipe') {
  for (const [name, command, ...args] of steps) {
    const child = spawn(command, args, { stdio: ['ignore', output, output] });
    let printed = '';
    child.stdout?.on('data', (text) => (printed += text));
    child.stderr?.on('data', (text) => (printed += text));
    if (output === 'inherit') console.log(`\n=== ${name}`);
    const status = await new Promise((resolve) => child.on('close', resolve));
    if (output === 'pipe') console.log(`\n=== ${name}\n${printed}`);
    if (status !== 0) failedSteps.push([name]);
  }
}

/** Of the unit tests that failed, the file and the title. */
function failedIn(files) {
  return files.flatMap(({ name, assertionResults }) =>
    assertionResults
      .filter(({ status }) => status === 'failed')
      .map(({ fullName }) => `${name.split('/').at(-1)}: ${fullName}`),
  );
}

/** Titles of the browser tests that failed first and went well then. */
function flakyIn(suites) {
  return suites.flatMap(({ specs = [], suites: inner = [] }) => [
    ...specs.filter(({ tests }) => tests.some(({ status }) => status === 'flaky')).map(({ title }) => title),
    ...flakyIn(inner),
  ]);
}

function read(path) {
  try {
    return JSON.parse(readFileSync(path, 'utf8'));
  } catch {
    return undefined;
  }
}
