import type { OnModuleInit } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { LimitName, SchoolLimits } from '@doodla/core';
import { LIMITS } from '@doodla/core';
import { logFailure } from '../http/failures.js';
import { Repository } from 'typeorm';
import { Peers } from '../processes/peers.js';
import { SchoolLimit } from './schoolLimit.entity.js';
import { Settings } from './settings.js';

const NAMES = Object.keys(LIMITS) as LimitName[];

/** The limits of the school: as whoever looks after it has set them, else as the server's settings say. */
@Injectable()
export class LimitsService implements OnModuleInit {
  private readonly logger = new Logger('Limits');
  private readonly set = new Map<SchoolLimit['name'], number>();

  constructor(
    private readonly settings: Settings,
    @InjectRepository(SchoolLimit) private readonly rows: Repository<SchoolLimit>,
    private readonly peers: Peers,
  ) {}

  async onModuleInit(): Promise<void> {
    await this.read();
    this.peers.on('limits', () => {
      this.read().catch((error: unknown) => logFailure(this.logger, 'Limits could not be read anew', error));
    });
  }

  get current(): SchoolLimits {
    const of = (name: LimitName) => this.set.get(name) ?? this.settings[name];
    return {
      maxUploadMb: of('maxUploadMb'),
      maxPages: of('maxPages'),
      retentionDays: of('retentionDays'),
      tellOfRecording: this.set.get('tellOfRecording') === 1,
    };
  }

  async change(limits: SchoolLimits): Promise<void> {
    const rows = [
      ...NAMES.map((name) => ({ name, value: limits[name] })),
      { name: 'tellOfRecording' as const, value: limits.tellOfRecording ? 1 : 0 },
    ];
    await this.rows.upsert(rows, ['name']);
    for (const { name, value } of rows) this.set.set(name, value);
    this.peers.tell('limits');
  }

  private async read(): Promise<void> {
    for (const { name, value } of await this.rows.find()) this.set.set(name, value);
  }
}
