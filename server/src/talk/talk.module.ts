import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Tables } from '../storage/tables.js';
import { ChatService } from './chat.service.js';
import { SaidWords } from './chatMessage.entity.js';
import { ClassWordsController } from './classWords.controller.js';
import { ClassNotes } from './classNotes.entity.js';
import { NotesService } from './notes.service.js';
import { TalkGateway } from './talk.gateway.js';

export const TALK_TABLES: Tables = { entities: [SaidWords, ClassNotes], migrations: [] };

/** What classes say to each other and note down. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature(TALK_TABLES.entities)],
  controllers: [ClassWordsController],
  providers: [TalkGateway, ChatService, NotesService],
  exports: [ChatService, NotesService],
})
export class TalkModule {}
