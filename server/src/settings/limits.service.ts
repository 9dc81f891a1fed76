import type { OnModuleInit } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { LimitName, SchoolLimits } from '@doodla/core';
import { LIMITS } from '@doodla/core';
import { Repository } from 'typeorm';
import { SchoolLimit } from './schoolLimit.entity.js';
import { Settings } from './settings.js';

const NAMES = Object.keys(LIMITS) as LimitName[];

/** The limits of the school: as whoever looks after it has set them, else as the server's settings say. */
@Injectable()
export class LimitsService implements OnModuleInit {
  private readonly set = new Map<LimitName, number>();

  constructor(
    private readonly settings: Settings,
    @InjectRepository(SchoolLimit) private readonly rows: Repository<SchoolLimit>,
  ) {}

  async onModuleInit(): Promise<void> {
    for (const { name, value } of await this.rows.find()) this.set.set(name, value);
  }

  get current(): SchoolLimits {
    const of = (name: LimitName) => this.set.get(name) ?? this.settings[name];
    return { maxUploadMb: of('maxUploadMb'), maxPages: of('maxPages'), retentionDays: of('retentionDays') };
  }

  async change(limits: SchoolLimits): Promise<void> {
    await this.rows.upsert(
      NAMES.map((name) => ({ name, value: limits[name] })),
      ['name'],
    );
    for (const name of NAMES) this.set.set(name, limits[name]);
  }
}
