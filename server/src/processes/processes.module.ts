import type { OnApplicationShutdown } from '@nestjs/common';
import { Global, Injectable, Module } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Settings } from '../settings/settings.js';
import { LeaseTable } from '../storage/leaseTable.js';
import type { Tables } from '../storage/tables.js';
import { Jobs } from './jobs.js';
import { Leases, SoleLeases } from './leases.js';
import { Limiters } from './limiters.js';
import { Peers } from './peers.js';
import { ProcessesController } from './processes.controller.js';
import { Processes1700000000028 } from './processes.migration.js';
import { Readiness } from './readiness.js';
import { GONE_MS, SharedLeases } from './sharedLeases.js';

export const PROCESSES_TABLES: Tables = { entities: [], migrations: [Processes1700000000028] };

/** Says last of all that this process is there no more. */
@Injectable()
class Farewell implements OnApplicationShutdown {
  constructor(private readonly leases: Leases) {}

  async onApplicationShutdown(): Promise<void> {
    if (this.leases instanceof SharedLeases) await this.leases.end();
  }
}

const leases = {
  provide: Leases,
  // The database comes first: it brings the tables up to date.
  inject: [Settings, DataSource],
  useFactory: ({ redis, database }: Settings) =>
    redis === undefined ? new SoleLeases() : new SharedLeases(new LeaseTable(database, GONE_MS)),
};

/** One process of several: what it has in hand, and what it tells the others and does together with them. */
@Global()
@Module({
  controllers: [ProcessesController],
  providers: [leases, Limiters, Peers, Jobs, Readiness, Farewell],
  exports: [Leases, Limiters, Peers, Jobs, Readiness],
})
export class ProcessesModule {}
