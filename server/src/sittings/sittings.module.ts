import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { LessonMaterial } from '../lessons/lessonMaterial.entity.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import type { Tables } from '../storage/tables.js';
import { DoorService } from './door.service.js';
import { RemovalsService } from './removals.service.js';
import { SeatsService } from './seats.service.js';
import { Sitting } from './sitting.entity.js';
import { SittingMaterial } from './sittingMaterial.entity.js';
import { SittingsController } from './sittings.controller.js';
import { SittingsService } from './sittings.service.js';
import { Student } from './student.entity.js';
import { ToLessonService } from './toLesson.service.js';
import { ClassTurn } from './turn.entity.js';
import { TurnsService } from './turns.service.js';

export const SITTINGS_TABLES: Tables = {
  entities: [Sitting, SittingMaterial, Student, ClassTurn],
  migrations: [],
};

/** Classes and who is in them. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature([...SITTINGS_TABLES.entities, LessonMaterial, StoredPicture])],
  controllers: [SittingsController],
  providers: [DoorService, RemovalsService, SeatsService, SittingsService, ToLessonService, TurnsService],
  exports: [SeatsService, SittingsService, ToLessonService, TurnsService],
})
export class SittingsModule {}
