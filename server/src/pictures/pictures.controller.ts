import { Controller, Get, Param, ParseUUIDPipe, Post, Req, Res, UseGuards } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { randomUUID } from 'node:crypto';
import type { Request, Response } from 'express';
import { rm } from 'node:fs/promises';
import { Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { receiveUpload } from '../http/upload.js';
import { AccessService } from '../live/access.service.js';
import { FileAccess } from '../materials/fileAccess.js';
import type { Visitor } from '../people/visitor.js';
import { CurrentVisitor, VisitorGuard } from '../people/visitor.guard.js';
import { RoomService } from '../schools/room.service.js';
import { ScreensService } from '../screens/screens.service.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { FileStore } from '../storage/fileStore.js';
import { checkedType } from './checkedType.js';
import { StoredPicture } from './picture.entity.js';
import { sendPicture } from './sendPicture.js';

/** The browser scales larger ones before it sends them. */
export const MAX_PICTURE_MB = 12;
const MAX_PER_LESSON = 2000;
/** Bytes of all pictures of a lesson, and of one person in one class. */
const LESSON_BYTES = 1_500_000_000;
const PERSON_BYTES = 150_000_000;

type PicturePlace = Pick<StoredPicture, 'lessonId' | 'sittingId'>;

/** Pictures on pages: whoever may write on a page may put some there. */
@Controller('api')
@UseGuards(VisitorGuard)
export class PicturesController {
  constructor(
    @InjectRepository(StoredPicture) private readonly pictures: Repository<StoredPicture>,
    private readonly access: AccessService,
    private readonly visible: FileAccess,
    private readonly sittings: SittingsService,
    private readonly screens: ScreensService,
    private readonly files: FileStore,
    private readonly room: RoomService,
  ) {}

  @Post('lessons/:id/pictures')
  async toLesson(
    @Param('id', ParseUUIDPipe) id: string,
    @CurrentVisitor() visitor: Visitor,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ) {
    const { actor, writes } = await this.access.to({ kind: 'lesson', id }, visitor);
    if (!writes) throw new Problem(403, 'not-allowed', 'Only the teacher can do that.');
    return this.take({ lessonId: id, sittingId: null }, actor.id, request, response);
  }

  @Post('sittings/:id/pictures')
  async toSitting(
    @Param('id', ParseUUIDPipe) id: string,
    @CurrentVisitor() visitor: Visitor,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ) {
    const { actor, situation } = await this.access.to({ kind: 'sitting', id }, visitor);
    const { ended, pensUp } = await situation();
    if (ended)
      throw new Problem(
        409,
        'ended-pictures',
        'This class has ended, so nothing more can be put on its pages.',
      );
    if (actor.role === 'student' && !pensUp && !this.screens.isPresenter(id, actor.id))
      throw new Problem(403, 'pens-down-pictures', 'Pens are down: please wait for your teacher.');
    const sitting = await this.sittings.find(id);
    return this.take({ lessonId: sitting!.lessonId, sittingId: id }, actor.id, request, response);
  }

  @Get('pictures/:id')
  async get(
    @Param('id', ParseUUIDPipe) id: string,
    @CurrentVisitor() visitor: Visitor,
    @Res() response: Response,
  ): Promise<void> {
    const picture = await this.visible.picture(visitor, id);
    sendPicture(response, { path: await this.files.local(picture.sha256), type: picture.type });
  }

  /** Throws Problem where a lesson, or one person in a class, has brought too much. */
  private async checkQuotas({ lessonId, sittingId }: PicturePlace, author: string): Promise<void> {
    const count = await this.pictures.countBy({ lessonId });
    const bytes = (await this.pictures.sum('bytes', { lessonId })) ?? 0;
    if (count >= MAX_PER_LESSON || bytes >= LESSON_BYTES)
      throw new Problem(
        409,
        'lesson-full-of-pictures',
        'This lesson is full of pictures. Please delete some first.',
      );
    if (sittingId === null) return;
    const own = (await this.pictures.sum('bytes', { sittingId, author })) ?? 0;
    if (own >= PERSON_BYTES)
      throw new Problem(
        409,
        'your-pictures-full',
        'Your part of this class is full of pictures. Please delete some first.',
      );
  }

  private async take(
    place: PicturePlace,
    author: string,
    request: Request,
    response: Response,
  ): Promise<{ id: string }> {
    await this.checkQuotas(place, author);
    const limits = await this.room.onLesson(place.lessonId, MAX_PICTURE_MB);
    const upload = await receiveUpload(request, response, this.files, limits);
    const { path, size: bytes } = upload;
    try {
      const type = await checkedType(path);
      const sha256 = await this.files.take(upload);
      const id = randomUUID();
      await this.pictures.insert({ id, ...place, author, type, sha256, bytes, createdAt: Date.now() });
      return { id };
    } finally {
      await rm(path, { force: true });
    }
  }
}
