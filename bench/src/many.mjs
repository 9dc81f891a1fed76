// More than one school can bear: what storing an operation takes in PostgreSQL, beside SQLite; whether logs that are opened and
// closed by the thousand leave memory as it was; what a class costs two processes that share the work, beside one; and how long a
// class waits when the process that has it in hand is killed. Both databases sync to the disk before anything is acknowledged.
import { startPostgres } from '../../scripts/postgresForTests.mjs';
import { startRedis } from '../../scripts/redisForTests.mjs';
import { measureAppends } from './manyAppends.mjs';
import { measureProcesses } from './manyProcesses.mjs';
import { report } from './report.mjs';

const POSTGRES_PORT = 4694;
const REDIS_PORT = 4695;

const stops = [startPostgres(POSTGRES_PORT), await startRedis(REDIS_PORT)];
const postgres = `postgres://doodla@127.0.0.1:${POSTGRES_PORT}`;
const appends = await measureAppends(`${postgres}/postgres`);
const processes = await measureProcesses(postgres, `redis://127.0.0.1:${REDIS_PORT}`);
for (const stop of stops) await stop();
report('many', { ...appends, ...processes });
