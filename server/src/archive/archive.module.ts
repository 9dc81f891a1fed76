import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { IdeaVote } from '../ideas/ideaVote.entity.js';
import { Material } from '../materials/material.entity.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import { AskedPoll } from '../polls/poll.entity.js';
import { GivenAnswer } from '../polls/pollAnswer.entity.js';
import { Sitting } from '../sittings/sitting.entity.js';
import { Student } from '../sittings/student.entity.js';
import { SaidWords } from '../talk/chatMessage.entity.js';
import { ArchiveController } from './archive.controller.js';
import { ArchiveContentService } from './archiveContent.service.js';
import { ArchivedFilesService } from './archivedFiles.service.js';
import { ArchiveMakingService } from './archiveMaking.service.js';
import { ArchiveReadingService } from './archiveReading.service.js';
import { MadeArchives } from './madeArchives.js';

/** Lessons as archives: made, and read back. */
@Module({
  imports: [
    TypeOrmModule.forFeature([
      ...[AskedPoll, GivenAnswer, IdeaVote, Material, SaidWords, Sitting, StoredPicture, Student],
    ]),
  ],
  controllers: [ArchiveController],
  exports: [ArchiveMakingService, ArchiveReadingService],
  providers: [
    MadeArchives,
    ArchiveContentService,
    ArchivedFilesService,
    ArchiveMakingService,
    ArchiveReadingService,
  ],
})
export class ArchiveModule {}
