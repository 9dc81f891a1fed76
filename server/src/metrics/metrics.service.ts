import type { OnModuleInit } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { OfficeConverter } from '../documents/officeConverter.js';
import { failures } from '../http/failures.js';
import { ClassGateway } from '../live/class.gateway.js';
import { LiveGateway } from '../live/live.gateway.js';
import { LogsService } from '../live/logs.service.js';
import { Jobs } from '../processes/jobs.js';
import { Leases } from '../processes/leases.js';
import { SharedLeases } from '../processes/sharedLeases.js';
import { waitingTurns } from '../reading/fairTurns.js';
import { DiskSpace } from '../storage/diskSpace.js';

/** Upper ends of the steps in which times are counted, seconds. */
const STEPS = [0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5];

/** Longest that a figure is waited for, which may come from elsewhere; milliseconds. */
const PATIENCE_MS = 1000;

/** Figures of a server for programs that watch it; nothing of what anybody wrote, and nobody's name. */
@Injectable()
export class MetricsService implements OnModuleInit {
  private readonly registry = new Registry();
  private readonly appends: Histogram;
  private readonly ink: Histogram;

  constructor(
    private readonly logs: LogsService,
    private readonly gateway: ClassGateway,
    private readonly disk: DiskSpace,
    private readonly live: LiveGateway,
    private readonly leases: Leases,
    private readonly jobs: Jobs,
    private readonly office: OfficeConverter,
  ) {
    const registers = [this.registry];
    this.appends = new Histogram({
      name: 'doodla_append_seconds',
      help: 'From when an operation is to be stored to when it is on the disk.',
      buckets: STEPS,
      registers,
    });
    this.ink = new Histogram({
      name: 'doodla_wet_ink_seconds',
      help: 'From when wet ink came to when it was passed on.',
      buckets: STEPS,
      registers,
    });
  }

  onModuleInit(): void {
    collectDefaultMetrics({ register: this.registry });
    this.logs.onAppended((_, { tookMs }) => this.appends.observe(tookMs / 1000));
    this.live.onInk((waitedMs) => this.ink.observe(waitedMs / 1000));
    this.count('doodla_connections', 'Browsers that are connected, by who they are.', 'role', () =>
      this.gateway.connections(),
    );
    this.measure('doodla_classes', 'Classes in which somebody is connected.', () =>
      this.gateway.openClasses(),
    );
    this.measure('doodla_logs_open', 'Logs that are in memory.', () => this.logs.count);
    this.measure('doodla_reads_waiting', 'Files of people that wait to be read.', () => waitingTurns());
    this.measure('doodla_jobs_waiting', 'Jobs that wait for a process, of all processes together.', () =>
      this.jobs.waiting(),
    );
    this.measure(
      'doodla_conversions_waiting',
      'Documents that wait to be turned into pages, of all processes together.',
      () => this.office.waiting(),
    );
    const { leases } = this;
    if (leases instanceof SharedLeases)
      this.measure('doodla_lessons_held', 'Lessons that this process has in hand.', () => leases.count);
    this.measure('doodla_disk_free_bytes', 'Room on the disk of the data folder.', () => this.disk.free());
    this.measure(
      'doodla_failures',
      'Failures since the start that nobody has foreseen.',
      () => failures.count,
    );
  }

  /** In Prometheus' text format, and what that is called. */
  async told(): Promise<{ type: string; text: string }> {
    return { type: this.registry.contentType, text: await this.registry.metrics() };
  }

  private measure(name: string, help: string, value: () => number | Promise<number>): void {
    new Gauge({
      name,
      help,
      registers: [this.registry],
      async collect() {
        this.set(await soon(value()));
      },
    });
  }

  private count(name: string, help: string, label: string, counts: () => ReadonlyMap<string, number>): void {
    new Gauge({
      name,
      help,
      labelNames: [label],
      registers: [this.registry],
      collect() {
        this.reset();
        for (const [value, n] of counts()) this.set({ [label]: value }, n);
      },
    });
  }
}

/** A figure, or that there is none (“NaN” in the text format) where whoever has it does not answer. */
async function soon(value: number | Promise<number>): Promise<number> {
  let timer: NodeJS.Timeout | undefined;
  const none = new Promise<number>((resolve) => {
    timer = setTimeout(() => resolve(NaN), PATIENCE_MS);
  });
  return Promise.race([value, none]).finally(() => clearTimeout(timer));
}
