import { Controller, Get, Res } from '@nestjs/common';
import type { Response } from 'express';
import { readFileSync } from 'node:fs';
import { Readiness } from '../processes/readiness.js';
import { Settings } from '../settings/settings.js';
import { DiskSpace } from '../storage/diskSpace.js';
import { LogStore } from '../storage/logStore.js';
import { failures } from './failures.js';

const { version } = JSON.parse(readFileSync(new URL('../../package.json', import.meta.url), 'utf8')) as {
  version: string;
};

/** For whoever watches the server. */
@Controller()
export class HealthController {
  constructor(
    private readonly logs: LogStore,
    private readonly disk: DiskSpace,
    private readonly settings: Settings,
    private readonly readiness: Readiness,
  ) {}

  /** 200 while this process wants to be sent requests, 503 while it starts, ends or cannot write. */
  @Get('health/ready')
  async ready(@Res({ passthrough: true }) response: Response) {
    const isReady = this.readiness.wanted && (await this.logs.isWritable());
    response.status(isReady ? 200 : 503).set('Cache-Control', 'no-store');
    return { ready: isReady };
  }

  /** 200 while everything works, 503 where something has to be seen to. */
  @Get('health')
  async health(@Res({ passthrough: true }) response: Response) {
    const database = (await this.logs.isWritable()) ? 'writable' : 'not writable';
    const free = await this.disk.free();
    const isWell = database === 'writable' && free > this.disk.reserve;
    response.status(isWell ? 200 : 503).set('Cache-Control', 'no-store');
    return {
      status: isWell ? 'well' : 'needs attention',
      database,
      disk: { freeMb: Math.floor(free / 1e6), reserveMb: this.disk.reserve / 1e6 },
      uptimeSeconds: Math.floor(process.uptime()),
      failures: failures.count,
      versions: { doodla: version, node: process.version },
      demo: this.settings.demo,
    };
  }
}
