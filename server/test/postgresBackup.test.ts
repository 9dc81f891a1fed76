import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { PROGRAMS } from '../../scripts/postgresForTests.mjs';
import { aClass } from './helpers/aClass.js';
import { LiveClient, strokeBy } from './helpers/live.js';
import { signedIn, startServer } from './helpers/server.js';
import { databaseFor, dropDatabaseOf, POSTGRES } from './helpers/testDatabase.js';

/** By PostgreSQL's own tools, as docs/operations.md says it. */
it.skipIf(!POSTGRES)(
  'a school in PostgreSQL is put back from a dump that was made while it ran',
  async () => {
    const server = await startServer();
    const room = await aClass(server, await signedIn(server));
    const mark = strokeBy(room.me, room.pages[0]!.id);
    await room.live.submit(room.sitting, [{ do: 'add', mark }]);
    const folder = mkdtempSync(join(tmpdir(), 'doodla-dump-'));
    const dump = join(folder, 'school.dump');
    execFileSync(join(PROGRAMS!, 'pg_dump'), ['-Fc', '-f', dump, (await databaseFor(server.data))!]);
    await room.live.submit(room.sitting, [{ do: 'remove', mark: mark.id }]);
    room.live.close();
    await server.stop();

    const other = (await databaseFor(folder))!;
    execFileSync(join(PROGRAMS!, 'pg_restore'), ['-d', other, '--exit-on-error', dump]);
    const again = await startServer({ DOODLA_DATABASE: other }, server.data);
    const teacher = await signedIn(again);
    await teacher.send('POST', '/api/sign-in', { email: 'ada@school.example', password: 'chalk-and-board' });
    const live = await LiveClient.connect(again.url, { cookie: teacher.cookie });
    expect((await live.snapshot(room.sitting)).marks.map(({ id }) => id)).toContain(mark.id);
    live.close();
    await again.stop();
    for (const each of [folder, server.data]) {
      await dropDatabaseOf(each);
      rmSync(each, { recursive: true });
    }
  },
);
