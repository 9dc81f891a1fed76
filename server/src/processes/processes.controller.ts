import { Controller, HttpCode, Param, ParseUUIDPipe, Post, Query, Req } from '@nestjs/common';
import type { Request } from 'express';
import { moving, notFound } from '../http/problem.js';
import { Leases } from './leases.js';
import { wasPassedOn } from './passingOn.js';
import { SharedLeases } from './sharedLeases.js';

/** What the processes of one installation ask of each other. */
@Controller('api/processes')
export class ProcessesController {
  constructor(private readonly leases: Leases) {}

  /** Hands a lesson over to the process that asks. */
  @Post('leases/:lesson/handover')
  @HttpCode(204)
  async handOver(
    @Req() request: Request,
    @Param('lesson', ParseUUIDPipe) lesson: string,
    @Query('to', ParseUUIDPipe) to: string,
    @Query('unused') unused?: string,
  ): Promise<void> {
    if (!(this.leases instanceof SharedLeases) || !wasPassedOn(request)) throw notFound('This page');
    if (unused !== undefined && this.leases.isInUse(lesson)) throw moving();
    await this.leases.handOver(lesson, to);
  }
}
