import { Controller, Get, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { createHash, timingSafeEqual } from 'node:crypto';
import { notFound, Problem } from '../http/problem.js';
import { bearerToken } from '../people/visitors.service.js';
import { Settings } from '../settings/settings.js';
import { MetricsService } from './metrics.service.js';

/** Figures for whoever has the token that is set for it; where none is set there are none. */
@Controller('metrics')
export class MetricsController {
  constructor(
    private readonly metrics: MetricsService,
    private readonly settings: Settings,
  ) {}

  @Get()
  async told(@Req() request: Request, @Res() response: Response): Promise<void> {
    const { metricsToken } = this.settings;
    if (metricsToken === undefined) throw notFound('This page');
    if (!isSame(bearerToken(request) ?? '', metricsToken))
      throw new Problem(401, 'metrics-token', 'Send the token that DOODLA_METRICS_TOKEN is set to.');
    const { type, text } = await this.metrics.told();
    response.set({ 'Content-Type': type, 'Cache-Control': 'no-store' }).send(text);
  }
}

/** Compared by hashes, so that how long it takes says nothing of where they differ. */
function isSame(given: string, wanted: string): boolean {
  const [one, other] = [given, wanted].map((text) => createHash('sha256').update(text).digest());
  return timingSafeEqual(one!, other!);
}
