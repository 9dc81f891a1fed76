import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Material } from '../materials/material.entity.js';
import { Teacher } from '../people/teacher.entity.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import { SittingMaterial } from '../sittings/sittingMaterial.entity.js';
import type { Tables } from '../storage/tables.js';
import { CoversController } from './covers.controller.js';
import { LessonFolder } from './folder.entity.js';
import { FoldersController } from './folders.controller.js';
import { FoldersService } from './folders.service.js';
import { Lesson } from './lesson.entity.js';
import { LessonMaterial } from './lessonMaterial.entity.js';
import { LessonTeam } from './lessonTeam.entity.js';
import { LessonsController } from './lessons.controller.js';
import { LessonsService } from './lessons.service.js';
import { PageCopiesController } from './pageCopies.controller.js';
import { PageCopiesService } from './pageCopies.service.js';
import { PurgeService } from './purge.service.js';
import { TeamsController } from './teams.controller.js';
import { TeamsService } from './teams.service.js';

export const LESSONS_TABLES: Tables = {
  entities: [Lesson, LessonFolder, LessonMaterial, LessonTeam],
  migrations: [],
};

/** Lessons and their pages. */
@Global()
@Module({
  imports: [
    TypeOrmModule.forFeature([...LESSONS_TABLES.entities, Material, SittingMaterial, StoredPicture, Teacher]),
  ],
  controllers: [
    CoversController,
    FoldersController,
    LessonsController,
    PageCopiesController,
    TeamsController,
  ],
  providers: [FoldersService, LessonsService, PageCopiesService, PurgeService, TeamsService],
  exports: [LessonsService, PageCopiesService, PurgeService, TeamsService],
})
export class LessonsModule {}
