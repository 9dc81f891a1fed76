import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  Put,
  Req,
  Res,
  UseGuards,
} from '@nestjs/common';
import type { SharedLinkDoor, SharedLinkSummary } from '@doodla/core';
import type { Request, Response } from 'express';
import { rm } from 'node:fs/promises';
import { publicAddress } from '../http/publicAddress.js';
import { AttemptLimit } from '../http/attemptLimit.js';
import { Limiters } from '../processes/limiters.js';
import { receiveUpload } from '../http/upload.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { RoomService } from '../schools/room.service.js';
import { Settings } from '../settings/settings.js';
import { FileStore } from '../storage/fileStore.js';
import type { SharedLink } from './link.entity.js';
import { LinkDto, LookAtLinkDto } from './links.dto.js';
import { LinksService } from './links.service.js';

/** Nothing that a shown page holds may run or fetch anything, wherever it is opened. */
const POLICY = "sandbox; default-src 'none'; img-src data:; font-src data:; style-src 'unsafe-inline'";

@Controller('api')
export class LinksController {
  private readonly limit: AttemptLimit;

  constructor(
    private readonly links: LinksService,
    private readonly files: FileStore,
    private readonly settings: Settings,
    private readonly room: RoomService,
    limiters: Limiters,
  ) {
    this.limit = new AttemptLimit(limiters, 'links');
  }

  /** Makes a link; it shows something once its pages have been put there. */
  @Post('lessons/:id/links')
  @UseGuards(TeacherGuard)
  async make(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Body() what: LinkDto,
    @Req() request: Request,
  ): Promise<SharedLinkSummary> {
    return this.summary(await this.links.make(teacher.id, id, what), request);
  }

  /** Puts what a link shows there: one HTML file that needs no other, or a packed explanation. */
  @Put('links/:id/pages')
  @HttpCode(204)
  @UseGuards(TeacherGuard)
  async put(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const link = await this.links.own(teacher.id, id);
    const limits = await this.room.forUpload(teacher.id);
    const upload = await receiveUpload(request, response, this.files, limits);
    try {
      await this.links.show(link, await this.files.take(upload));
    } finally {
      await rm(upload.path, { force: true });
    }
  }

  @Get('lessons/:id/links')
  @UseGuards(TeacherGuard)
  async list(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Req() request: Request,
  ): Promise<SharedLinkSummary[]> {
    return (await this.links.of(teacher.id, id)).map((link) => this.summary(link, request));
  }

  /** Takes a link back. */
  @Delete('links/:id')
  @HttpCode(204)
  @UseGuards(TeacherGuard)
  async remove(@CurrentTeacher() teacher: Teacher, @Param('id', ParseUUIDPipe) id: string): Promise<void> {
    await this.links.remove(await this.links.own(teacher.id, id));
  }

  /** What anybody is told who has a link. */
  @Get('shared/:token')
  door(@Param('token') token: string, @Req() request: Request): Promise<SharedLinkDoor> {
    return this.limit.guard(request, async () => {
      const { title, explanationId, passwordHash, mayDownload } = await this.links.at(token);
      return { title, plays: explanationId !== null, hasPassword: passwordHash !== null, mayDownload };
    });
  }

  /** The pages that a link shows, or the explanation that it plays. */
  @Post('shared/:token/pages')
  async pages(
    @Param('token') token: string,
    @Body() { password }: LookAtLinkDto,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    const { sha256, explanationId } = await this.limit.guard(request, async () => {
      const link = await this.links.at(token);
      await this.links.checkPassword(link, password);
      return link;
    });
    response.sendFile(await this.files.local(sha256), {
      headers: {
        'Content-Type': explanationId === null ? 'text/html; charset=utf-8' : 'application/zip',
        'Content-Security-Policy': POLICY,
        'Cache-Control': 'no-store',
      },
      dotfiles: 'allow',
    });
  }

  private summary(link: SharedLink, request: Request): SharedLinkSummary {
    const { id, title, token, explanationId, passwordHash, endsAt, mayDownload, createdAt } = link;
    const address = publicAddress(request, this.settings);
    const url = `${address}/see/${token}`;
    const hasPassword = passwordHash !== null;
    return { id, title, url, explanation: explanationId, hasPassword, endsAt, mayDownload, createdAt };
  }
}
