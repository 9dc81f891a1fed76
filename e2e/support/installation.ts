import { PROGRAMS, startPostgres } from '../../scripts/postgresForTests.mjs';
import { hasRedis, startRedis } from '../../scripts/redisForTests.mjs';
import { CuttableLine } from './cuttableLine';
import { freePort, Server } from './server';

export const canShare = PROGRAMS !== undefined && hasRedis;

/** Two processes on a PostgreSQL and a Redis of their own, behind one address that sends to each in turn. */
export class Installation {
  private constructor(
    readonly processes: readonly Server[],
    readonly front: CuttableLine,
    private readonly stops: readonly (() => void | Promise<void>)[],
  ) {}

  static async start(): Promise<Installation> {
    const [postgres, redis] = [await freePort(), await freePort()];
    const stops = [startPostgres(postgres), await startRedis(redis)];
    const env = {
      DOODLA_DATABASE: `postgres://doodla@127.0.0.1:${postgres}/postgres`,
      DOODLA_REDIS: `redis://127.0.0.1:${redis}`,
    };
    const first = await Server.start(env);
    const processes = [first, await Server.start(env, 'localhost', first.data)];
    const front = await CuttableLine.to(...processes.map(({ port }) => port));
    return new Installation(processes, front, stops);
  }

  async remove(): Promise<void> {
    this.front.close();
    for (const each of this.processes) await each.remove();
    for (const stop of this.stops) await stop();
  }
}
