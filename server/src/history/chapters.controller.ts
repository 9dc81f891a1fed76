import { Body, Controller, HttpCode, Param, Put, UseGuards } from '@nestjs/common';
import { AccessService } from '../live/access.service.js';
import type { Visitor } from '../people/visitor.js';
import { CurrentVisitor, TeacherGuard } from '../people/visitor.guard.js';
import { TurnsService } from '../sittings/turns.service.js';
import { ChapterDto, ChapterNameDto } from './history.dto.js';

@Controller('api/logs/sitting/:id/chapters')
@UseGuards(TeacherGuard)
export class ChaptersController {
  constructor(
    private readonly access: AccessService,
    private readonly turns: TurnsService,
  ) {}

  @Put(':chapter')
  @HttpCode(204)
  async name(
    @CurrentVisitor() visitor: Visitor,
    @Param() { id, chapter }: ChapterDto,
    @Body() { name }: ChapterNameDto,
  ): Promise<void> {
    await this.access.to({ kind: 'sitting', id }, visitor);
    await this.turns.name(id, Number(chapter), name);
  }
}
