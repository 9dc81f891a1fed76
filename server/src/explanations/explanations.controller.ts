import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  Post,
  Put,
  Req,
  Res,
  StreamableFile,
  UseGuards,
} from '@nestjs/common';
import type { ExplanationsReply, LogRef } from '@doodla/core';
import { MOST_PIECE_BYTES } from '@doodla/core';
import type { Request, Response } from 'express';
import { Readable } from 'node:stream';
import { LogDto } from '../history/history.dto.js';
import { ReplayAccess } from '../history/replayAccess.js';
import { notFound, Problem } from '../http/problem.js';
import { receiveBytes } from '../http/receiveBytes.js';
import { AccessService } from '../live/access.service.js';
import type { Visitor } from '../people/visitor.js';
import { CurrentVisitor, VisitorGuard } from '../people/visitor.guard.js';
import { DiskSpace } from '../storage/diskSpace.js';
import {
  ExplanationOfLogDto,
  ExplanationSettingsDto,
  PieceOfLogDto,
  TakeDto,
  TakeOfLogDto,
  TrackOfLogDto,
} from './explanations.dto.js';
import { ExplanationsService } from './explanations.service.js';
import { PiecesService } from './pieces.service.js';

/** Recorded explanations: their teacher's to record and change, a class's to watch where it may play pages again. */
@Controller('api/logs/:kind/:id/explanations')
@UseGuards(VisitorGuard)
export class ExplanationsController {
  constructor(
    private readonly access: AccessService,
    private readonly watching: ReplayAccess,
    private readonly explanations: ExplanationsService,
    private readonly pieces: PiecesService,
    private readonly disk: DiskSpace,
  ) {}

  @Get()
  async list(@CurrentVisitor() visitor: Visitor, @Param() log: LogDto): Promise<ExplanationsReply> {
    const { role } = await this.watching.to(log, visitor);
    const explanations = await this.explanations.of(log, role !== 'student');
    const room = role === 'student' ? 0 : Math.max(0, (await this.disk.free()) - this.disk.reserve);
    return { now: Date.now(), room, explanations };
  }

  /** Keeps what is said of an explanation; the first time makes it. */
  @Put(':explanation')
  @HttpCode(204)
  async put(
    @CurrentVisitor() visitor: Visitor,
    @Param() { explanation, ...log }: ExplanationOfLogDto,
    @Body() said: ExplanationSettingsDto,
  ): Promise<void> {
    await this.checkTeaches(log, visitor);
    await this.explanations.put(log, explanation, said);
  }

  @Delete(':explanation')
  @HttpCode(204)
  async drop(
    @CurrentVisitor() visitor: Visitor,
    @Param() { explanation, ...log }: ExplanationOfLogDto,
  ): Promise<void> {
    await this.checkTeaches(log, visitor);
    await this.explanations.drop(log, explanation);
  }

  /** Brings a dropped one back. */
  @Post(':explanation')
  @HttpCode(204)
  async bringBack(
    @CurrentVisitor() visitor: Visitor,
    @Param() { explanation, ...log }: ExplanationOfLogDto,
  ): Promise<void> {
    await this.checkTeaches(log, visitor);
    await this.explanations.bringBack(log, explanation);
  }

  @Put(':explanation/takes/:take')
  @HttpCode(204)
  async putTake(
    @CurrentVisitor() visitor: Visitor,
    @Param() { explanation, take, ...log }: TakeOfLogDto,
    @Body() { startedAt, length, voice, video, face }: TakeDto,
  ): Promise<void> {
    await this.checkTeaches(log, visitor);
    const tracks = { voice: voice ?? null, video: video ?? null, face: face ?? null };
    await this.explanations.putTake(log, explanation, { id: take, startedAt, length, ...tracks });
  }

  /** Drops a take for good, with all that was recorded in it. */
  @Delete(':explanation/takes/:take')
  @HttpCode(204)
  async dropTake(
    @CurrentVisitor() visitor: Visitor,
    @Param() { explanation, take, ...log }: TakeOfLogDto,
  ): Promise<void> {
    await this.checkTeaches(log, visitor);
    await this.explanations.dropTake(log, explanation, take);
  }

  @Put(':explanation/takes/:take/:track/:number')
  @HttpCode(204)
  async putPiece(
    @CurrentVisitor() visitor: Visitor,
    @Param() { explanation, take, track, number, ...log }: PieceOfLogDto,
    @Req() request: Request,
  ): Promise<void> {
    await this.checkTeaches(log, visitor);
    await this.explanations.find(log, explanation);
    await this.explanations.findTake(explanation, take);
    const bytes = await receiveBytes(request, MOST_PIECE_BYTES);
    await this.pieces.put(log, { take, track, number: Number(number) }, bytes);
  }

  /** A whole track: what was noted, as lines of JSON, or sound or video in the container that the browser recorded. */
  @Get(':explanation/takes/:take/:track')
  async track(
    @CurrentVisitor() visitor: Visitor,
    @Param() { explanation, take, track, ...log }: TrackOfLogDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const { role } = await this.watching.to(log, visitor);
    const { finished, droppedAt } = await this.explanations.find(log, explanation);
    if (role === 'student' && (!finished || droppedAt !== null)) throw notFound('This explanation');
    const found = await this.explanations.findTake(explanation, take);
    response.set('Cache-Control', 'private, no-cache');
    const type = track === 'notes' ? 'application/x-ndjson' : (found[track] ?? 'application/octet-stream');
    const length = await this.pieces.sizeOf(take, track);
    return new StreamableFile(Readable.from(this.pieces.read(take, track), { objectMode: false }), {
      type,
      length,
    });
  }

  private async checkTeaches(log: LogRef, visitor: Visitor): Promise<void> {
    const { actor } = await this.access.to(log, visitor);
    if (actor.role !== 'teacher' || visitor.role !== 'teacher')
      throw new Problem(403, 'not-allowed', 'Only the teacher can do that.');
  }
}
