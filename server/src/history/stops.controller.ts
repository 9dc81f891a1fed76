import { Body, Controller, Delete, HttpCode, Param, Post, Put, UseGuards } from '@nestjs/common';
import type { LogRef, ReplayStop } from '@doodla/core';
import { AccessService } from '../live/access.service.js';
import type { Visitor } from '../people/visitor.js';
import { CurrentVisitor, TeacherGuard } from '../people/visitor.guard.js';
import { LogDto, StopOfLogDto, StopPlaceDto } from './history.dto.js';
import { StopsService } from './stops.service.js';

@Controller('api/logs/:kind/:id/stops')
@UseGuards(TeacherGuard)
export class StopsController {
  constructor(
    private readonly access: AccessService,
    private readonly stops: StopsService,
  ) {}

  @Post()
  async add(
    @CurrentVisitor() visitor: Visitor,
    @Param() log: LogDto,
    @Body() place: StopPlaceDto,
  ): Promise<ReplayStop> {
    await this.access.to(log, visitor);
    return this.stops.add(log, place);
  }

  @Put(':stop')
  @HttpCode(204)
  async change(
    @CurrentVisitor() visitor: Visitor,
    @Param() { stop, ...log }: StopOfLogDto,
    @Body() place: StopPlaceDto,
  ): Promise<void> {
    await this.access.to(log, visitor);
    await this.stops.change(log satisfies LogRef, stop, place);
  }

  @Delete(':stop')
  @HttpCode(204)
  async remove(@CurrentVisitor() visitor: Visitor, @Param() { stop, ...log }: StopOfLogDto): Promise<void> {
    await this.access.to(log, visitor);
    await this.stops.remove(log, stop);
  }
}
