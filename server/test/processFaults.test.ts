import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { startPostgres } from '../../scripts/postgresForTests.mjs';
import { startRedis } from '../../scripts/redisForTests.mjs';
import type { ServerProcess } from './helpers/processes.js';
import { CAN_SHARE, freePort, Installation, Line } from './helpers/processes.js';
import type { Place } from './helpers/writingClass.js';
import { firstTeacher, openClass, writingThrough } from './helpers/writingClass.js';

const TOKEN = 'a-long-enough-token';
/** However slow the machine is that the tests run on. */
const PATIENCE = { timeout: 90_000, interval: 50 };
/** Longer than a process may be silent before others take what it had. */
const LONG_SILENT = 6000;

interface School {
  school: Installation;
  front: Line;
  place: Place;
  /** The process that has the class in hand, and the others. */
  holder: ServerProcess;
  others: ServerProcess[];
}

describe.skipIf(!CAN_SHARE)(
  'a class goes on, nothing of it lost or doubled and in one order for all,',
  () => {
    const ends: (() => unknown)[] = [];
    afterEach(async () => {
      for (const end of ends.splice(0).reverse()) await end();
    });

    async function aSchool(
      env: Record<string, string> = {},
      each: Record<string, string>[] = [{}, {}],
    ): Promise<School> {
      const school = await Installation.create(env);
      ends.push(() => school.remove());
      const processes: ServerProcess[] = [];
      for (const own of each) processes.push(await school.start(own));
      const front = await Line.to(...processes.map(({ port }) => port));
      ends.push(() => front.close());
      const place = await openClass(front.url, await firstTeacher(front.url));
      const holder = await school.holderOf(place.lesson);
      return { school, front, place, holder, others: school.othersThan(holder) };
    }

    const through = (
      { school: { database }, front: { url }, place }: School,
      happening: () => Promise<void>,
    ) => writingThrough({ url, place, database }, happening);

    it('when the process that has it in hand is killed', async () => {
      const at = await aSchool();
      await through(at, async () => {
        await at.holder.end('SIGKILL');
      });
      expect(await at.school.holderOf(at.place.lesson)).toBe(at.others[0]);
    });

    it('when a process is killed through which some come to it', async () => {
      const at = await aSchool();
      await through(at, async () => {
        await at.others[0]!.end('SIGKILL');
      });
      expect(await at.school.holderOf(at.place.lesson)).toBe(at.holder);
    });

    it('when the process that has it stands still until others have taken it, and comes back', async () => {
      const at = await aSchool();
      const [sent, kept] = [at.front.ports, at.others.map(({ port }) => port)];
      await through(at, async () => {
        at.holder.signal('SIGSTOP');
        // Whoever sends requests sees that it does not answer.
        const paused = sent.splice(sent.indexOf(at.holder.port), 1);
        await sleep(LONG_SILENT);
        at.front.cut();
        expect(sent).toEqual(kept);
        await vi.waitUntil(
          async () => (await at.school.holderOf(at.place.lesson)) === at.others[0],
          PATIENCE,
        );
        at.holder.signal('SIGCONT');
        sent.push(...paused);
      });
    });

    it('when Redis is gone for half a minute', async () => {
      const port = await freePort();
      let stop = await startRedis(port);
      const at = await aSchool({ DOODLA_REDIS: `redis://127.0.0.1:${port}`, DOODLA_METRICS_TOKEN: TOKEN });
      ends.push(() => stop());
      await through(at, async () => {
        await stop();
        // Whoever watches is told what is known all the same.
        const headers = { authorization: `Bearer ${TOKEN}` };
        const told = await (await fetch(`${at.holder.url}/metrics`, { headers })).text();
        expect(told).toMatch(/^doodla_lessons_held \d+$/m);
        expect(told).toMatch(/^doodla_jobs_waiting nan$/im);
        await sleep(30_000);
        stop = await startRedis(port);
      });
    });

    it('when PostgreSQL is started again', async () => {
      const port = await freePort();
      const stop = startPostgres(port);
      ends.push(stop);
      const at = await aSchool({ DOODLA_DATABASE: `postgres://doodla@127.0.0.1:${port}/postgres` });
      await through(at, () => Promise.resolve(stop.restart()));
    });

    it('when the line between two processes is cut, and others go on where they are', async () => {
      const ports = [await freePort(), await freePort()];
      const lines = await Promise.all(ports.map((port) => Line.to(port)));
      ends.push(() => lines.forEach((line) => line.close()));
      const school = await Installation.create();
      ends.push(() => school.remove());
      for (const [i, port] of ports.entries()) await school.start({ DOODLA_ADDRESS: lines[i]!.url }, port);
      const front = await Line.to(...ports);
      ends.push(() => front.close());
      const place = await openClass(front.url, await firstTeacher(front.url));
      const holder = await school.holderOf(place.lesson);
      const at = { school, front, place, holder, others: school.othersThan(holder) };
      await through(at, async () => {
        for (const line of lines) {
          line.isCut = true;
          line.cut();
        }
        await sleep(LONG_SILENT);
        for (const line of lines) line.isCut = false;
      });
    });

    it('where clocks are an hour apart', async () => {
      const folder = mkdtempSync(join(tmpdir(), 'doodla-clock-'));
      ends.push(() => rmSync(folder, { recursive: true, force: true }));
      const late = join(folder, 'late.mjs');
      writeFileSync(late, 'const { now } = Date;\nDate.now = () => now() - 3_600_000;\n');
      const at = await aSchool({}, [{}, { NODE_OPTIONS: `--import=${late}` }]);
      await through(at, async () => {
        await at.holder.end('SIGKILL');
      });
    });

    it('when the process that has it is told to stop, and hands it over', async () => {
      const at = await aSchool({ DOODLA_DRAIN_SECONDS: '4' });
      let code: number | null = null;
      await through(at, async () => {
        const ending = at.holder.end('SIGTERM');
        await vi.waitUntil(async () => !(await at.holder.isReady()), PATIENCE);
        code = await ending;
      });
      expect(code).toBe(0);
      expect(await at.school.holderOf(at.place.lesson)).toBe(at.others[0]);
    });
  },
);
