import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Lesson } from '../lessons/lesson.entity.js';
import { Material } from '../materials/material.entity.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import { Sitting } from '../sittings/sitting.entity.js';
import type { Tables } from '../storage/tables.js';
import { FoundPage } from './foundPage.entity.js';
import { PageWordsService } from './pageWords.service.js';
import { PrintedWords } from './printedWords.entity.js';
import { SearchController } from './search.controller.js';
import { SearchIndexService } from './searchIndex.service.js';
import { SearchService } from './search.service.js';

export const SEARCH_TABLES: Tables = { entities: [FoundPage, PrintedWords], migrations: [] };

/** Finding pages by their words. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature([...SEARCH_TABLES.entities, Lesson, Material, Sitting, StoredPicture])],
  controllers: [SearchController],
  providers: [PageWordsService, SearchIndexService, SearchService],
  exports: [SearchIndexService],
})
export class SearchModule {}
