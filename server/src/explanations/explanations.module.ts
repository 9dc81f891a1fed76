import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Tables } from '../storage/tables.js';
import { StoredExplanation } from './explanation.entity.js';
import { ExplanationsController } from './explanations.controller.js';
import { ExplanationsService } from './explanations.service.js';
import { StoredPiece } from './piece.entity.js';
import { PiecesService } from './pieces.service.js';
import { RecordingGateway } from './recording.gateway.js';
import { StoredTake } from './take.entity.js';

export const EXPLANATIONS_TABLES: Tables = {
  entities: [StoredExplanation, StoredTake, StoredPiece],
  migrations: [],
};

/** Recorded explanations, and the sign that a class is being recorded. */
@Module({
  imports: [TypeOrmModule.forFeature(EXPLANATIONS_TABLES.entities)],
  controllers: [ExplanationsController],
  providers: [ExplanationsService, PiecesService, RecordingGateway],
  exports: [ExplanationsService],
})
export class ExplanationsModule {}
