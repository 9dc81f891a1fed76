import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Teacher } from '../people/teacher.entity.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import type { Tables } from '../storage/tables.js';
import { ShelfPicture } from './shelfPicture.entity.js';
import { StoredThing, ThingMaterial, ThingPicture } from './shelfThing.entity.js';
import { StampsController } from './stamps.controller.js';
import { ThingContentService } from './thingContent.service.js';
import { ThingsController } from './things.controller.js';
import { ThingsService } from './things.service.js';

export const SHELF_TABLES: Tables = {
  entities: [ShelfPicture, StoredThing, ThingPicture, ThingMaterial],
  migrations: [],
};

/** What teachers keep for use in any lesson: stamps, marks, pages. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature([...SHELF_TABLES.entities, StoredPicture, Teacher])],
  controllers: [StampsController, ThingsController],
  providers: [ThingContentService, ThingsService],
})
export class ShelfModule {}
