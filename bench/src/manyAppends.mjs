// What storing an operation takes in PostgreSQL, beside SQLite, and whether logs that are opened and closed leave memory as it was.
import { createApp } from '@doodla/server/app';
import { LogsService } from '@doodla/server/live/logs.service';
import { readSettings } from '@doodla/server/settings/settings';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { percentile } from './report.mjs';
import { aStroke, handPoints } from './school.mjs';

const SLOWER = 3;
/** Classes that write at once, operations of each in a round, and rounds of each database in turn. */
const CLASSES = 10;
const OPERATIONS = 40;
const ROUNDS = 6;
const LOGS = 1000;
/** Of the heap that was in use before. */
const GROWN = 1.05;
const POINTS = 60;

setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc');

/** What storing operations takes, and what many logs leave behind. */
export async function measureAppends(url) {
  const sqlite = await appOn({});
  const postgres = await appOn({ DOODLA_DATABASE: url });
  const times = { sqlite: [], postgres: [] };
  for (let round = 0; round < ROUNDS; round++) {
    // The first round warms both up.
    const [one, other] = [await appends(sqlite.logs, round), await appends(postgres.logs, round)];
    if (round === 0) continue;
    times.sqlite.push(...one);
    times.postgres.push(...other);
  }
  const grown = { sqlite: await growth(sqlite.logs), postgres: await growth(postgres.logs) };
  await sqlite.close();
  await postgres.close();
  const [base, append] = [percentile(times.sqlite, 0.95), percentile(times.postgres, 0.95)];
  return {
    append: { value: round2(append / base), unit: 'times SQLite’s, 95th percentile', limit: SLOWER },
    sqliteMs: { value: round2(base), unit: 'ms' },
    postgresMs: { value: round2(append), unit: 'ms' },
    logsClosed: {
      value: round2(Math.max(grown.sqlite, grown.postgres)),
      unit: 'times the heap before',
      limit: GROWN,
      logs: LOGS,
    },
  };
}

async function appOn(env) {
  const data = mkdtempSync(join(tmpdir(), 'doodla-bench-'));
  const app = await createApp(readSettings({ DOODLA_PORT: '0', DOODLA_DATA: data, ...env }));
  await app.init();
  const close = async () => {
    await app.close();
    rmSync(data, { recursive: true, force: true });
  };
  return { logs: app.get(LogsService), close };
}

/** Milliseconds that storing each stroke takes while some classes write at once, each one stroke after the other. */
async function appends(logs, round) {
  const found = [];
  const classes = Array.from({ length: CLASSES }, async (_, i) => {
    const log = `class-${i}`;
    for (let n = 0; n < OPERATIONS; n++) {
      const mark = aStroke('page', `pupil-${i}`, handPoints(POINTS, n));
      const began = performance.now();
      await logs.append(log, `pupil-${i}`, { id: `${round}-${i}-${n}`, changes: [{ do: 'add', mark }] });
      found.push(performance.now() - began);
    }
  });
  await Promise.all(classes);
  return found;
}

/** How much of the heap is in use after logs were opened and put away a second time, of that after the first time. */
async function growth(logs) {
  await openAll(logs, 'first');
  const before = used();
  await openAll(logs, 'second');
  return used() / before;
}

async function openAll(logs, round) {
  for (let i = 0; i < LOGS; i++) {
    const mark = aStroke('page', 'ada', handPoints(POINTS, i));
    await logs.append(`many-${i}`, 'ada', { id: `${round}-${i}`, changes: [{ do: 'add', mark }] });
    await (await logs.open(`many-${i}`)).marksOn('page');
  }
  logs.closeIdle(Date.now() + 3_600_000);
  await new Promise((resolve) => setTimeout(resolve, 200));
}

function used() {
  collect();
  return process.memoryUsage().heapUsed;
}

function round2(value) {
  return Math.round(value * 100) / 100;
}
