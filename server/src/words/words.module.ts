import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Tables } from '../storage/tables.js';
import { ReadWords } from './readWords.entity.js';
import { WordsController } from './words.controller.js';
import { WordsService } from './words.service.js';

export const WORDS_TABLES: Tables = { entities: [ReadWords], migrations: [] };

/** Words that were read from pictures of pages. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature(WORDS_TABLES.entities)],
  controllers: [WordsController],
  providers: [WordsService],
  exports: [WordsService],
})
export class WordsModule {}
